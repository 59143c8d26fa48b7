-- Up Migration
-- Pages show what a file is called and how large it is, and the size of a picture; those are the same for all who ask, too.
CREATE TRIGGER raise_site_version AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON files
  FOR EACH STATEMENT EXECUTE FUNCTION raise_site_version();
CREATE TRIGGER raise_site_version AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON pictures
  FOR EACH STATEMENT EXECUTE FUNCTION raise_site_version();
