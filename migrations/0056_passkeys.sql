-- Passkeys (WebAuthn Level 2): the public key by which a device of a member's signs in.
CREATE TABLE passkeys (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  -- As the device names it, in base64url.
  credential_id text NOT NULL UNIQUE CHECK (length(credential_id) <= 1400),
  public_key bytea NOT NULL,
  -- How often the device says it has signed; many say 0 each time.
  counter bigint NOT NULL DEFAULT 0,
  transports text[] NOT NULL DEFAULT '{}',
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  at timestamptz NOT NULL DEFAULT now(),
  used_at timestamptz
);
CREATE INDEX passkeys_by_member ON passkeys (member_id);
-- What a device was asked to sign, by its hash: good once, for a few minutes.
CREATE TABLE passkey_challenges (
  hash bytea PRIMARY KEY,
  -- Whose passkey is being added; null: it is for signing in.
  member_id uuid REFERENCES members ON DELETE CASCADE,
  expires_at timestamptz NOT NULL
);
-- Whether a session has shown more than a password or a mailed code: a one-time code, or a passkey.
ALTER TABLE sessions ADD is_proven boolean NOT NULL DEFAULT false;
UPDATE sessions SET is_proven = true
  WHERE NOT needs_code AND member_id IN (SELECT member_id FROM one_time_codes WHERE confirmed_at IS NOT NULL);
-- Whether staff are staff only in such a session.
ALTER TABLE site ADD asks_staff_proof boolean NOT NULL DEFAULT false;
