-- Staff can ask to be told of what is bought once.
ALTER TABLE staff_mails DROP CONSTRAINT staff_mails_kind_check;
ALTER TABLE staff_mails ADD CONSTRAINT staff_mails_kind_check
  CHECK (kind IN ('joined', 'bought', 'failed', 'disputed', 'left', 'transfer', 'comment', 'weekly'));
