-- Up Migration
-- What is cancelled knows its end; while a switch away from it is being paid, that is what is worked on next, and not the end.
ALTER TABLE subscriptions DROP CONSTRAINT unpaid_is_tried,
  ADD CONSTRAINT unpaid_is_tried CHECK (state <> 'overdue' OR next_at IS NOT NULL OR disputes <> '{}'),
  ADD CONSTRAINT cancelled_ends CHECK (state <> 'cancelling' OR due_at IS NOT NULL OR disputes <> '{}');
