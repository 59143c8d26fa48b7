-- Up Migration
-- Rises with every change of what is the same for all who ask: the site, its rules, tiers, menu and texts. A process that
-- has read any of it may use it again while the version is the same.
CREATE TABLE site_version (
  is_only boolean PRIMARY KEY DEFAULT true CHECK (is_only),
  n bigint NOT NULL
);
INSERT INTO site_version (n) VALUES (1);

CREATE FUNCTION raise_site_version() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE site_version SET n = n + 1;
  RETURN NULL;
END $$;

DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['site', 'reworded', 'mail_settings', 'tax_kinds', 'tax_rates', 'rules', 'kinds', 'categories', 'tags',
    'items', 'item_categories', 'menu_entries', 'page_roles', 'ladders', 'tiers', 'offers', 'offer_versions',
    'join_fields'] LOOP
    EXECUTE format('CREATE TRIGGER raise_site_version AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON %I
      FOR EACH STATEMENT EXECUTE FUNCTION raise_site_version()', t);
  END LOOP;
END $$;
