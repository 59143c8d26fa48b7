-- Up Migration
-- Sites and folders beside this one that nginx lets people into by its access rules. `origin`: where they are, the site's own for
-- a folder on the same host; `prefix`: the address under which rules know them. `secret_hash`: the SHA-256 of what nginx sends.
CREATE TABLE outside_sites (
  id text PRIMARY KEY,
  name text NOT NULL CHECK (name <> ''),
  origin text NOT NULL,
  prefix text NOT NULL,
  secret_hash bytea NOT NULL UNIQUE,
  version integer NOT NULL DEFAULT 1,
  created_at timestamptz NOT NULL DEFAULT now()
);

-- Who is let in to a site on another host: by a token that is good once, and then by a cookie of that host. Each ends with the
-- session that it is for.
CREATE TABLE outside_entries (
  hash bytea PRIMARY KEY,
  site_id text NOT NULL REFERENCES outside_sites (id) ON DELETE CASCADE,
  session bytea REFERENCES sessions (token_hash) ON DELETE CASCADE,
  passes bytea,
  return_to text NOT NULL,
  expires_at timestamptz NOT NULL
);
CREATE TABLE outside_sessions (
  hash bytea PRIMARY KEY,
  site_id text NOT NULL REFERENCES outside_sites (id) ON DELETE CASCADE,
  session bytea REFERENCES sessions (token_hash) ON DELETE CASCADE,
  passes bytea,
  expires_at timestamptz NOT NULL
);
CREATE INDEX outside_sessions_session ON outside_sessions (session);
