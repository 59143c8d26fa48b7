-- Up Migration
-- An address belongs to whoever can read its mail: when that was last proved; NULL where it never was.
ALTER TABLE members ADD email_confirmed_at timestamptz;
-- The owner was named by whoever set the site up.
UPDATE members SET email_confirmed_at = created_at WHERE staff_role = 'owner';

-- A six-digit code mailed to an address, for the one browser that asked for it.
CREATE TABLE email_codes (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  browser_hash bytea NOT NULL UNIQUE,
  purpose text NOT NULL CHECK (purpose IN ('sign-in', 'join', 'new-address')),
  email text NOT NULL,
  -- Whose address it is to become, where it is a new one.
  member_id uuid REFERENCES members ON DELETE CASCADE,
  return_to text NOT NULL,
  code_hash bytea NOT NULL,
  link_hash bytea NOT NULL UNIQUE,
  tries integer NOT NULL DEFAULT 0,
  expires_at timestamptz NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK ((purpose = 'new-address') = (member_id IS NOT NULL))
);
CREATE INDEX ON email_codes (expires_at);
CREATE INDEX ON email_codes (member_id);

-- Browsers that have signed in to an account before: strangers' wrong passwords do not lock them out.
CREATE TABLE devices (
  token_hash bytea PRIMARY KEY,
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  expires_at timestamptz NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON devices (member_id);
CREATE INDEX ON devices (expires_at);

ALTER TABLE sessions
  -- Names a session in the list of one's own; opens nothing.
  ADD id uuid NOT NULL DEFAULT gen_random_uuid() UNIQUE,
  ADD last_seen_at timestamptz NOT NULL DEFAULT now(),
  ADD browser text NOT NULL DEFAULT '';
CREATE INDEX ON sessions (expires_at);
ALTER TABLE site
  ADD staff_idle_minutes integer NOT NULL DEFAULT 720 CHECK (staff_idle_minutes BETWEEN 5 AND 43200),
  -- Refunds above it ask staff for the password again; minor units of the site's currency.
  ADD refund_asks_above bigint NOT NULL DEFAULT 5000 CHECK (refund_asks_above >= 0);

-- Every address is confirmed before anything is joined.
ALTER TABLE tiers DROP COLUMN confirm_address;
UPDATE joinings SET state = 'expired' WHERE state = 'waiting';
ALTER TABLE joinings DROP CONSTRAINT joinings_state_check;
ALTER TABLE joinings
  ADD CONSTRAINT joinings_state_check CHECK (state IN ('open', 'done', 'expired')),
  DROP COLUMN resume_hash,
  DROP COLUMN password_hash;
DROP INDEX joinings_at_idx;
CREATE INDEX ON joinings (at) WHERE state = 'open';
CREATE INDEX ON joinings (member_id);
CREATE INDEX ON joinings (quote_id);

-- What a mail says that lets somebody in is sealed until it is sent, and then gone.
ALTER TABLE mails ADD sealed text;
UPDATE mails SET html_body = '', text_body = regexp_replace(text_body, 'https?://\S+', '(a link that only its reader has)', 'g'),
  state = CASE state WHEN 'queued' THEN 'failed' ELSE state END
  WHERE template IN ('prove-address', 'unfinished', 'sign-in-link');
DELETE FROM sign_in_links;
DELETE FROM mail_settings WHERE template IN ('prove-address', 'sign-in-link');

CREATE INDEX ON mails (member_id, at DESC);
CREATE INDEX ON holdings (tier_id);
CREATE INDEX ON agreements (subscription_id);
