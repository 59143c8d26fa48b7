-- The language that members read, and sentences of it in the owner's own words.
ALTER TABLE site ADD COLUMN language text NOT NULL DEFAULT 'en-GB' CHECK (language IN ('en-GB', 'en-US', 'de-DE'));
-- The rhythm with which the join page opens; '' for the shortest.
ALTER TABLE site ADD COLUMN join_rhythm text NOT NULL DEFAULT '';
CREATE TABLE reworded (
  language text NOT NULL,
  key text NOT NULL,
  words text NOT NULL CHECK (words <> ''),
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (language, key)
);
-- A card is told by its last figures and its end, in no language.
UPDATE subscriptions SET method_label = regexp_replace(method_label, '^card ending (\d+), expires ', '•••• \1, ');
