-- Up Migration
-- Mailed links that sign in, each once, for a short while of real time.
CREATE TABLE sign_in_links (
  token_hash bytea PRIMARY KEY,
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  return_to text NOT NULL DEFAULT '/account',
  expires_at timestamptz NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON sign_in_links (expires_at);

-- What the books must keep of somebody who deleted their account stays; who they were does not.
ALTER TABLE members ADD deleted_at timestamptz;
ALTER TABLE site ADD may_delete_account boolean NOT NULL DEFAULT true;
