-- Up Migration
-- The private address under which a member's feed can be read without signing in; one for each member, its token as a hash.
CREATE TABLE private_feeds (
  member_id uuid PRIMARY KEY REFERENCES members ON DELETE CASCADE,
  token_hash bytea NOT NULL UNIQUE,
  made_at timestamptz NOT NULL
);
