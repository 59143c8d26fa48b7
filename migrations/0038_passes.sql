-- Up Migration
-- Rights to named content without any tier. `password_hash`: of a shared password that gives it, argon2id; null for none.
CREATE TABLE passes (
  id text PRIMARY KEY,
  name text NOT NULL CHECK (name <> ''),
  password_hash text,
  -- Whether it is given for an address that is proved by a mailed link.
  by_address boolean NOT NULL DEFAULT false,
  -- In the core's form; null: without end.
  lasts jsonb,
  version integer NOT NULL DEFAULT 1,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX passes_name ON passes (lower(name));
CREATE TRIGGER raise_site_version AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON passes
  FOR EACH STATEMENT EXECUTE FUNCTION raise_site_version();

-- A pass in the hands of a member or of a visitor's browser, which is known by the SHA-256 of what its cookie holds.
CREATE TABLE held_passes (
  id uuid PRIMARY KEY,
  pass_id text NOT NULL REFERENCES passes (id) ON DELETE CASCADE,
  member_id uuid REFERENCES members (id) ON DELETE CASCADE,
  browser bytea,
  why text NOT NULL CHECK (why IN ('password', 'address')),
  -- The address that was proved for it.
  email text,
  mode money_mode NOT NULL,
  since_at timestamptz NOT NULL,
  until_at timestamptz,
  -- Ended by staff, or by another password.
  is_revoked boolean NOT NULL DEFAULT false,
  CHECK (member_id IS NOT NULL OR browser IS NOT NULL),
  CHECK ((why = 'address') = (email IS NOT NULL))
);
CREATE INDEX held_passes_member ON held_passes (member_id) WHERE member_id IS NOT NULL;
CREATE INDEX held_passes_browser ON held_passes (browser) WHERE browser IS NOT NULL;
CREATE INDEX held_passes_pass ON held_passes (pass_id, since_at);

-- Mailed links that prove an address, by the SHA-256 of what is in them; each is good once.
CREATE TABLE pass_links (
  hash bytea PRIMARY KEY,
  pass_id text NOT NULL REFERENCES passes (id) ON DELETE CASCADE,
  email text NOT NULL,
  return_to text NOT NULL,
  mode money_mode NOT NULL,
  expires_at timestamptz NOT NULL
);
