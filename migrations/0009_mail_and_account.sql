-- Up Migration
-- What the owner changed of a mail: off, another subject, words of their own before ours.
CREATE TABLE mail_settings (
  template text PRIMARY KEY,
  is_on boolean NOT NULL DEFAULT true,
  subject text NOT NULL DEFAULT '',
  words text NOT NULL DEFAULT '',
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON mails (at DESC, created_at DESC);

ALTER TABLE subscriptions
  -- When its member is told of a charge that comes; null where nothing is to be told.
  ADD remind_at timestamptz,
  -- The last month in which the kept card can pay, "2028-11"; the month about which its member was told.
  ADD method_expires text CHECK (method_expires ~ '^\d{4}-\d{2}$'),
  ADD expiry_told text;
CREATE INDEX ON subscriptions (remind_at) WHERE remind_at IS NOT NULL;
CREATE INDEX ON subscriptions (method_expires) WHERE method_expires IS NOT NULL AND state NOT IN ('pending', 'ended');

-- The sections of the member's account, in order, each on or off; a tier may have its own.
ALTER TABLE site ADD account_sections jsonb NOT NULL DEFAULT '[]';
ALTER TABLE tiers ADD account_sections jsonb;

CREATE TABLE member_notes (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  staff_id uuid REFERENCES members ON DELETE SET NULL,
  words text NOT NULL CHECK (words <> ''),
  -- Whether the member reads it in their account.
  is_shown boolean NOT NULL,
  at timestamptz NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON member_notes (member_id, at DESC);
