-- What staff asked to be mailed about.
CREATE TABLE staff_mails (
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  kind text NOT NULL CHECK (kind IN ('joined', 'failed', 'disputed', 'left', 'transfer', 'weekly')),
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (member_id, kind)
);
-- Whom a mail to staff is about: what was written about someone is forgotten with their account.
ALTER TABLE mails ADD COLUMN about_member_id uuid REFERENCES members;
CREATE INDEX ON mails (about_member_id) WHERE about_member_id IS NOT NULL;
