-- Up Migration
-- The other sites that may show items in frames, as origins: "https://club.example".
ALTER TABLE site ADD COLUMN frame_origins text[] NOT NULL DEFAULT '{}';

-- What a member allowed a frame to show, until the frame fetches it; by the SHA-256 of what the frame alone has.
CREATE TABLE embed_grants (
  hash bytea PRIMARY KEY,
  item_id text NOT NULL REFERENCES items (id) ON DELETE CASCADE ON UPDATE CASCADE,
  session bytea NOT NULL REFERENCES sessions (token_hash) ON DELETE CASCADE,
  expires_at timestamptz NOT NULL
);
-- A frame in which one item is read as a member may read it; it ends with the session in which that was allowed.
CREATE TABLE embed_sessions (
  hash bytea PRIMARY KEY,
  item_id text NOT NULL REFERENCES items (id) ON DELETE CASCADE ON UPDATE CASCADE,
  session bytea NOT NULL REFERENCES sessions (token_hash) ON DELETE CASCADE,
  expires_at timestamptz NOT NULL
);
