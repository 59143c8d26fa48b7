-- A book looks also at credit that is spent, where its payment can still be refunded or disputed.
DROP INDEX credits_member_id_mode_idx;
CREATE INDEX ON credits (member_id, mode);

-- What is overdue is tried again or asked for now, unless a dispute has stopped its charges.
ALTER TABLE subscriptions DROP CONSTRAINT subscriptions_check3,
  ADD CONSTRAINT unpaid_is_tried CHECK (state NOT IN ('overdue', 'cancelling') OR next_at IS NOT NULL OR disputes <> '{}');
