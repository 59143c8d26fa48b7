-- Up Migration
-- What the gateway gives back by no call is sent by staff, who say when they have.
ALTER TABLE refunds ADD sent_by_hand_at timestamptz;
