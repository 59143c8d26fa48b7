-- Which members opened which items, where the owner has reads counted; by the site's clock.
CREATE TABLE item_reads (
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  item_id text NOT NULL REFERENCES items ON DELETE CASCADE,
  first_at timestamptz NOT NULL,
  last_at timestamptz NOT NULL,
  PRIMARY KEY (member_id, item_id)
);
CREATE INDEX item_reads_of_item ON item_reads (item_id);
