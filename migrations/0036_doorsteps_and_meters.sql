-- Up Migration
-- A doorstep meets each kind of person in its own way.
CREATE FUNCTION doorstep_by_person(old jsonb) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  SELECT jsonb_build_object(
    'teaser', old -> 'teaser',
    'meets', jsonb_build_object(
      'visitor', jsonb_build_object('kind', 'notice', 'words', old -> 'visitorNotice'),
      'wrong-tier', member, 'must-wait', member, 'lapsed', member, 'payment-failed', member),
    'showSignIn', old -> 'showSignIn',
    'showTiers', true,
    'button', NULL)
  FROM jsonb_build_object('kind', 'notice', 'words', old -> 'memberNotice') member
$$;
UPDATE site SET doorstep = doorstep_by_person(doorstep);
UPDATE rules SET doorstep = doorstep_by_person(doorstep) WHERE doorstep IS NOT NULL;
DROP FUNCTION doorstep_by_person;

-- An item may have a doorstep of its own.
CREATE TABLE item_doorsteps (
  item_id text PRIMARY KEY REFERENCES items (id) ON DELETE CASCADE ON UPDATE CASCADE,
  doorstep jsonb NOT NULL,
  version integer NOT NULL DEFAULT 1
);
CREATE TRIGGER raise_site_version AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON item_doorsteps
  FOR EACH STATEMENT EXECUTE FUNCTION raise_site_version();

-- Free reads of what is closed: who may have how many. `allowances` in the core's form.
CREATE TABLE meters (
  id text PRIMARY KEY,
  name text NOT NULL CHECK (name <> ''),
  reads_window text NOT NULL CHECK (reads_window IN ('rolling', 'calendar-month')),
  days integer CHECK (days > 0),
  allowances jsonb NOT NULL,
  version integer NOT NULL DEFAULT 1,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK ((reads_window = 'rolling') = (days IS NOT NULL))
);
CREATE TRIGGER raise_site_version AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON meters
  FOR EACH STATEMENT EXECUTE FUNCTION raise_site_version();

-- Reads that a meter counted, of a member or of a visitor's browser; a browser's become a member's when that signs in.
-- `browser`: the SHA-256 of what its cookie holds.
CREATE TABLE meter_reads (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  meter_id text NOT NULL REFERENCES meters (id) ON DELETE CASCADE,
  item_id text NOT NULL REFERENCES items (id) ON DELETE CASCADE ON UPDATE CASCADE,
  member_id uuid REFERENCES members (id) ON DELETE CASCADE,
  browser bytea,
  mode money_mode NOT NULL,
  at timestamptz NOT NULL,
  CHECK (member_id IS NOT NULL OR browser IS NOT NULL)
);
CREATE INDEX meter_reads_member ON meter_reads (member_id, at) WHERE member_id IS NOT NULL;
CREATE INDEX meter_reads_browser ON meter_reads (browser, at) WHERE browser IS NOT NULL;
CREATE INDEX meter_reads_meter ON meter_reads (meter_id, at);

-- When someone first wanted more than a meter had left, in each of its windows.
CREATE TABLE meter_ends (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  meter_id text NOT NULL REFERENCES meters (id) ON DELETE CASCADE,
  member_id uuid REFERENCES members (id) ON DELETE CASCADE,
  browser bytea,
  mode money_mode NOT NULL,
  at timestamptz NOT NULL,
  CHECK (member_id IS NOT NULL OR browser IS NOT NULL)
);
CREATE INDEX meter_ends_meter ON meter_ends (meter_id, at);
CREATE INDEX meter_ends_member ON meter_ends (member_id, at) WHERE member_id IS NOT NULL;
CREATE INDEX meter_ends_browser ON meter_ends (browser, at) WHERE browser IS NOT NULL;

-- A time in which everyone reads as holders of a tier do: its tier, its first and its last date.
ALTER TABLE site ADD COLUMN open_week jsonb;
