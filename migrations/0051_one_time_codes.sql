-- The secret by which an app shows one-time codes (RFC 6238), and the codes for when it is lost.
CREATE TABLE one_time_codes (
  member_id uuid PRIMARY KEY REFERENCES members ON DELETE CASCADE,
  secret_sealed text NOT NULL,
  -- Null: it was begun, and no code was typed yet.
  confirmed_at timestamptz,
  -- The last step of 30 seconds whose code was used: none is used twice.
  last_step bigint NOT NULL DEFAULT 0
);
CREATE TABLE recovery_codes (
  member_id uuid NOT NULL REFERENCES one_time_codes ON DELETE CASCADE,
  hash bytea NOT NULL,
  PRIMARY KEY (member_id, hash)
);
-- A session that has shown a password or a mailed code, and waits for the one-time code: nobody is signed in by it.
ALTER TABLE sessions ADD needs_code boolean NOT NULL DEFAULT false;
