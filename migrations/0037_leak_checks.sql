-- Up Migration
-- A leak check asks for every address as everyone; it is done in pieces, and what it found stays to be read.
CREATE TABLE leak_checks (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  -- The site's clock.
  started_at timestamptz NOT NULL,
  finished_at timestamptz,
  started_by uuid REFERENCES members (id) ON DELETE SET NULL,
  -- What it asks for, worked out when it starts: viewpoints and addresses.
  plan jsonb NOT NULL,
  -- How many of the answers were looked at.
  position integer NOT NULL DEFAULT 0,
  total integer NOT NULL,
  found jsonb NOT NULL DEFAULT '[]',
  created_at timestamptz NOT NULL DEFAULT now()
);
