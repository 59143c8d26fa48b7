-- Up Migration
CREATE EXTENSION IF NOT EXISTS btree_gist;

CREATE TYPE money_mode AS ENUM ('test', 'live');
CREATE TYPE staff_role AS ENUM ('owner', 'editor', 'helper', 'viewer');

-- One row: the site itself.
CREATE TABLE site (
  id boolean PRIMARY KEY DEFAULT true CHECK (id),
  name text NOT NULL CHECK (name <> ''),
  zone text NOT NULL,
  currency char(3) NOT NULL,
  mode money_mode NOT NULL DEFAULT 'test',
  access_default text NOT NULL DEFAULT 'everyone' CHECK (access_default IN ('everyone', 'signed-in', 'paying')),
  -- How far the rehearsal clock runs ahead of real time (or, while history is being rehearsed, behind it).
  clock_ahead_ms bigint NOT NULL DEFAULT 0,
  retry_days integer[] NOT NULL DEFAULT '{1,3,5,7}',
  grace_days integer NOT NULL DEFAULT 7 CHECK (grace_days >= 0),
  doorstep jsonb NOT NULL,
  sender_name text NOT NULL,
  sender_address text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE members (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  email text NOT NULL CHECK (email = lower(email) AND email LIKE '%_@_%'),
  name text NOT NULL,
  password_hash text,
  staff_role staff_role,
  joined_at timestamptz NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (email)
);

-- Sessions, like signatures and rate limits, live in real time whatever the rehearsal clock says.
CREATE TABLE sessions (
  token_hash bytea PRIMARY KEY,
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  created_at timestamptz NOT NULL DEFAULT now(),
  expires_at timestamptz NOT NULL
);
CREATE INDEX ON sessions (member_id);

-- The columns are those that the rate limiter library works with.
CREATE TABLE rate_limits (
  key varchar(255) PRIMARY KEY,
  points integer NOT NULL DEFAULT 0,
  expire bigint
);

CREATE TABLE audit (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  at timestamptz NOT NULL,
  actor_kind text NOT NULL CHECK (actor_kind IN ('staff', 'member', 'visitor', 'worker', 'gateway', 'setup')),
  actor_id uuid,
  action text NOT NULL,
  subject text NOT NULL,
  detail jsonb NOT NULL DEFAULT '{}',
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON audit (subject, id);

CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'the audit is append-only';
END $$;
CREATE TRIGGER audit_append_only BEFORE UPDATE OR DELETE ON audit FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE mails (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  -- What the mail is about: the same news is never mailed twice.
  dedupe_key text NOT NULL UNIQUE,
  member_id uuid REFERENCES members ON DELETE SET NULL,
  to_address text NOT NULL,
  template text NOT NULL,
  subject text NOT NULL,
  text_body text NOT NULL,
  html_body text NOT NULL,
  state text NOT NULL DEFAULT 'queued' CHECK (state IN ('queued', 'sent', 'failed')),
  attempts integer NOT NULL DEFAULT 0,
  next_attempt_at timestamptz NOT NULL DEFAULT now(),
  last_error text,
  -- The site's clock when it was written.
  at timestamptz NOT NULL,
  sent_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON mails (next_attempt_at) WHERE state = 'queued';
