-- Up Migration
-- Members put together by staff; access rules can ask for a group.
CREATE TABLE groups (
  id text PRIMARY KEY,
  name text NOT NULL CHECK (name <> ''),
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX groups_name ON groups (lower(name));
CREATE TABLE group_members (
  group_id text NOT NULL REFERENCES groups (id) ON DELETE CASCADE,
  member_id uuid NOT NULL REFERENCES members (id) ON DELETE CASCADE,
  added_at timestamptz NOT NULL,
  PRIMARY KEY (group_id, member_id)
);
CREATE INDEX group_members_member ON group_members (member_id);
CREATE TRIGGER raise_site_version AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON groups
  FOR EACH STATEMENT EXECUTE FUNCTION raise_site_version();
