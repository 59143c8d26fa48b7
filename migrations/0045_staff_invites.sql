-- People who are asked to join the staff: by the SHA-256 of what is in the mailed link, which is good once and for a week.
CREATE TABLE staff_invites (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  email text NOT NULL UNIQUE,
  role staff_role NOT NULL,
  hash bytea NOT NULL UNIQUE,
  invited_by uuid REFERENCES members (id) ON DELETE SET NULL,
  at timestamptz NOT NULL DEFAULT now(),
  expires_at timestamptz NOT NULL
);
CREATE INDEX ON staff_invites (invited_by);

-- The audit is searched by what was done, and by who did it.
CREATE INDEX audit_action ON audit USING gin (action gin_trgm_ops);
CREATE INDEX audit_actor ON audit (actor_id, id) WHERE actor_id IS NOT NULL;
