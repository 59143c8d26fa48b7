-- Up Migration
-- Pages that serve a purpose of the site.
CREATE TABLE page_roles (
  role text PRIMARY KEY CHECK (role IN ('room', 'join', 'sign-in', 'account', 'thanks', 'not-found', 'privacy', 'terms')),
  item_id text NOT NULL REFERENCES items ON DELETE CASCADE
);

-- How far a member has read in an item: nobody else's business.
CREATE TABLE reading_places (
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  item_id text NOT NULL REFERENCES items ON DELETE CASCADE,
  -- Of the whole, 0 to 1000.
  place integer NOT NULL CHECK (place BETWEEN 0 AND 1000),
  at timestamptz NOT NULL,
  PRIMARY KEY (member_id, item_id)
);
CREATE INDEX ON reading_places (member_id, at DESC);
