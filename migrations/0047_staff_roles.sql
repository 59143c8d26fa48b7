-- What the owner lets each staff role do and read; a role without a row is as it is from the start. Owners may do everything.
CREATE TABLE staff_roles (
  role text PRIMARY KEY CHECK (role IN ('editor', 'helper', 'viewer')),
  rights text[] NOT NULL,
  reads_all boolean NOT NULL,
  -- The categories whose posts they may write; null: all.
  writes_in text[],
  shut_from text[] NOT NULL DEFAULT '{}'
);
CREATE TRIGGER raise_site_version AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON staff_roles
  FOR EACH STATEMENT EXECUTE FUNCTION raise_site_version();
