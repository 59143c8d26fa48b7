-- Up Migration
-- Keys of the HTTP API, by the SHA-256 of what is in them. `begins`: their first characters, by which people know them.
CREATE TABLE api_keys (
  id uuid PRIMARY KEY,
  name text NOT NULL CHECK (name <> ''),
  hash bytea NOT NULL UNIQUE,
  begins text NOT NULL,
  scopes text[] NOT NULL CHECK (scopes <> '{}'),
  mode money_mode NOT NULL,
  made_by uuid NOT NULL REFERENCES members (id) ON DELETE CASCADE,
  created_at timestamptz NOT NULL DEFAULT now(),
  -- Real time, like sessions.
  ends_at timestamptz NOT NULL,
  revoked_at timestamptz,
  last_used_at timestamptz
);
