-- Up Migration
ALTER TABLE site
  ADD theme jsonb NOT NULL DEFAULT '{}',
  -- The picture beside the site's name; without it, its key.
  ADD mark_id uuid REFERENCES pictures;
