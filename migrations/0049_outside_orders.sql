-- What another program gave a member, by the number that it has there: asked again, it is the same.
CREATE TABLE outside_orders (
  mode money_mode NOT NULL,
  number text NOT NULL,
  member_id uuid NOT NULL REFERENCES members,
  kind text NOT NULL CHECK (kind IN ('tier', 'pass')),
  -- The tier or the pass.
  item text NOT NULL,
  -- Of holdings, or of held_passes.
  holding_id uuid NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (mode, number)
);
CREATE INDEX ON outside_orders (member_id);
