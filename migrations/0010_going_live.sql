-- Up Migration
ALTER TABLE site
  ADD went_live_at timestamptz,
  -- The owner asked for what was made in test mode to be cleared; the worker does it once every wallet has let go.
  ADD clears_test_data boolean NOT NULL DEFAULT false,
  ADD test_cleared_at timestamptz,
  ADD CHECK ((mode = 'live') = (went_live_at IS NOT NULL));
