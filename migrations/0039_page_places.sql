-- Up Migration
-- The place of each published page among its siblings, and the places that it had before, with when it lost them: a series
-- of pages that opens one by one closes nothing again because pages were moved.
CREATE TABLE page_places (
  item_id text NOT NULL REFERENCES items (id) ON DELETE CASCADE ON UPDATE CASCADE,
  parent_id text NOT NULL,
  place integer NOT NULL CHECK (place > 0),
  since_at timestamptz,
  until_at timestamptz
);
CREATE UNIQUE INDEX page_places_now ON page_places (item_id) WHERE until_at IS NULL;
CREATE INDEX page_places_item ON page_places (item_id);
CREATE INDEX page_places_parent ON page_places (parent_id);

-- In the order in which lists of pages have them.
CREATE VIEW pages_in_order AS
  SELECT id, parent_id, row_number() OVER (PARTITION BY parent_id ORDER BY position, published_at DESC, title, id)::integer AS place
  FROM items WHERE type = 'page' AND parent_id IS NOT NULL AND published_at IS NOT NULL AND trashed_at IS NULL;

CREATE FUNCTION note_page_places(parents text[]) RETURNS void LANGUAGE plpgsql AS $$
DECLARE
  moment timestamptz;
BEGIN
  -- Two who move siblings at once are one after the other here.
  PERFORM pg_advisory_xact_lock(hashtext('page places'), 0);
  SELECT now() + CASE WHEN mode = 'test' THEN clock_ahead_ms ELSE 0 END * interval '1 millisecond' INTO moment FROM site;
  moment := coalesce(moment, now());
  UPDATE page_places p SET until_at = moment
  WHERE p.until_at IS NULL
    AND (p.parent_id = ANY (parents) OR p.item_id IN (SELECT id FROM pages_in_order WHERE parent_id = ANY (parents)))
    AND NOT EXISTS (SELECT 1 FROM pages_in_order o WHERE o.id = p.item_id AND o.parent_id = p.parent_id AND o.place = p.place);
  -- What was so within one transaction only was never so for a reader.
  DELETE FROM page_places WHERE until_at = moment AND since_at = moment;
  INSERT INTO page_places (item_id, parent_id, place, since_at)
  SELECT o.id, o.parent_id, o.place, moment FROM pages_in_order o
  WHERE o.parent_id = ANY (parents)
    AND NOT EXISTS (SELECT 1 FROM page_places p WHERE p.item_id = o.id AND p.until_at IS NULL);
END $$;

CREATE FUNCTION note_new_or_gone_pages() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  parents text[] := ARRAY(SELECT DISTINCT parent_id FROM new_or_gone WHERE type = 'page' AND parent_id IS NOT NULL);
BEGIN
  IF parents <> '{}' THEN PERFORM note_page_places(parents); END IF;
  RETURN NULL;
END $$;
CREATE TRIGGER note_new_pages AFTER INSERT ON items REFERENCING NEW TABLE AS new_or_gone
  FOR EACH STATEMENT EXECUTE FUNCTION note_new_or_gone_pages();
CREATE TRIGGER note_gone_pages AFTER DELETE ON items REFERENCING OLD TABLE AS new_or_gone
  FOR EACH STATEMENT EXECUTE FUNCTION note_new_or_gone_pages();

CREATE FUNCTION note_moved_pages() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  parents text[] := ARRAY(
    SELECT DISTINCT parent FROM were_there w JOIN now_there n ON n.id = w.id,
      LATERAL (VALUES (w.parent_id), (n.parent_id)) AS both_parents (parent)
    WHERE n.type = 'page' AND parent IS NOT NULL
      AND (w.parent_id, w.position, w.published_at, w.trashed_at, w.title) IS DISTINCT FROM (n.parent_id, n.position, n.published_at, n.trashed_at, n.title));
BEGIN
  IF parents <> '{}' THEN PERFORM note_page_places(parents); END IF;
  RETURN NULL;
END $$;
CREATE TRIGGER note_moved_pages AFTER UPDATE ON items REFERENCING OLD TABLE AS were_there NEW TABLE AS now_there
  FOR EACH STATEMENT EXECUTE FUNCTION note_moved_pages();

INSERT INTO page_places (item_id, parent_id, place) SELECT id, parent_id, place FROM pages_in_order;
