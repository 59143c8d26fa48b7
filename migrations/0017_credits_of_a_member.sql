-- A book looks also at credit that is spent, where its payment can still be refunded or disputed.
DROP INDEX credits_member_id_mode_idx;
CREATE INDEX ON credits (member_id, mode);
