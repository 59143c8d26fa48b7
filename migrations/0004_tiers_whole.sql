-- Up Migration
-- Pictures live in the database: every web process sees them, and a backup of it is whole.
CREATE TABLE pictures (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  width integer NOT NULL CHECK (width > 0),
  height integer NOT NULL CHECK (height > 0),
  -- WebP, made from what was uploaded.
  bytes bytea NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

ALTER TABLE ladders
  ADD position integer NOT NULL DEFAULT 0,
  ADD credit_unused boolean NOT NULL DEFAULT true,
  ADD wait_days integer NOT NULL DEFAULT 0 CHECK (wait_days >= 0),
  ADD down_at_once boolean NOT NULL DEFAULT false;

CREATE TYPE joining_mode AS ENUM ('open', 'by-code', 'closed');

ALTER TABLE tiers
  ADD reference text NOT NULL DEFAULT '',
  ADD picture_id uuid REFERENCES pictures,
  ADD join_words jsonb NOT NULL DEFAULT '{"type": "doc", "content": []}',
  ADD welcome_words jsonb NOT NULL DEFAULT '{"type": "doc", "content": []}',
  -- Where the words after joining are shown.
  ADD welcome_shown text[] NOT NULL DEFAULT '{page,mail,account}' CHECK (welcome_shown <@ '{page,mail,account}'),
  ADD welcome_path text NOT NULL DEFAULT '' CHECK (welcome_path = '' OR welcome_path LIKE '/%'),
  ADD joining joining_mode NOT NULL DEFAULT 'open',
  -- Whether one person may hold it more than once.
  ADD several boolean NOT NULL DEFAULT false,
  ADD on_sale_from date,
  ADD on_sale_until date,
  ADD places integer CHECK (places > 0),
  -- Whether an address must be proved before a free offer of it opens.
  ADD confirm_address boolean NOT NULL DEFAULT false,
  ADD retired_at timestamptz,
  -- Rises with each save: who opened an older one is told.
  ADD version integer NOT NULL DEFAULT 1,
  ADD CHECK (on_sale_until >= on_sale_from),
  ADD CHECK (NOT several OR ladder_id IS NULL);
CREATE UNIQUE INDEX tier_references ON tiers (lower(reference)) WHERE reference <> '';

ALTER TABLE tiers ALTER description DROP DEFAULT;
ALTER TABLE tiers ALTER description TYPE jsonb USING jsonb_build_object('type', 'doc', 'content',
  CASE WHEN description = '' THEN '[]'::jsonb
  ELSE jsonb_build_array(jsonb_build_object('type', 'paragraph', 'content',
    jsonb_build_array(jsonb_build_object('type', 'text', 'text', description)))) END);
ALTER TABLE tiers ALTER description SET DEFAULT '{"type": "doc", "content": []}';

-- Rungs change places within one transaction.
ALTER TABLE tiers DROP CONSTRAINT tiers_ladder_id_rung_key;
ALTER TABLE tiers ADD CONSTRAINT tiers_rung UNIQUE (ladder_id, rung) DEFERRABLE;

ALTER TABLE offers
  ADD retired_at timestamptz,
  -- The words of its entry in the site's menu; empty where it has none.
  ADD menu_label text NOT NULL DEFAULT '';

ALTER TABLE subscriptions
  -- Tells apart the subscriptions of one person to a tier that may be held more than once.
  ADD slot text NOT NULL DEFAULT '',
  ADD skip_fee boolean NOT NULL DEFAULT false,
  -- Added to period numbers in the keys of charges: a schedule begun anew never meets the keys of the one before.
  ADD number_from integer NOT NULL DEFAULT 0,
  -- The version under which it goes on from its next period: the owner's move, or a switch that the member asked for.
  ADD moves_to uuid REFERENCES offer_versions,
  -- The version to which the owner moved it; a switch that the member asks for and takes back does not undo that.
  ADD owner_moved_to uuid REFERENCES offer_versions,
  -- Rises with every event of its life: a quote made before it is void.
  ADD events integer NOT NULL DEFAULT 0;
DROP INDEX one_running_subscription;
CREATE UNIQUE INDEX one_running_subscription ON subscriptions (member_id, mode, track, slot) WHERE state NOT IN ('pending', 'ended');
CREATE INDEX ON subscriptions (offer_version_id);

-- What the owner asks for at joining. The name is one of them, so that it has a place in the order.
CREATE TABLE join_fields (
  id text PRIMARY KEY,
  kind text NOT NULL CHECK (kind IN ('name', 'text', 'choice', 'tick', 'date', 'terms')),
  label text NOT NULL CHECK (label <> ''),
  hint text NOT NULL DEFAULT '',
  options text[] NOT NULL DEFAULT '{}',
  -- For terms: where they can be read.
  path text NOT NULL DEFAULT '',
  is_required boolean NOT NULL DEFAULT false,
  is_on boolean NOT NULL DEFAULT true,
  -- Empty: asked for by every tier.
  tier_ids text[] NOT NULL DEFAULT '{}',
  position integer NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK (kind <> 'choice' OR cardinality(options) >= 2)
);
CREATE UNIQUE INDEX ON join_fields (kind) WHERE kind = 'name';
INSERT INTO join_fields (id, kind, label, is_required, position) VALUES ('name', 'name', 'Name', true, 0);

-- What a member answered, with the question as it was then.
CREATE TABLE join_answers (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  subscription_id uuid NOT NULL REFERENCES subscriptions,
  field_id text NOT NULL,
  label text NOT NULL,
  value text NOT NULL,
  at timestamptz NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (subscription_id, field_id)
);
CREATE INDEX ON join_answers (member_id);

-- Words that admit to joining a tier.
CREATE TABLE joining_codes (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  tier_id text NOT NULL REFERENCES tiers ON DELETE CASCADE,
  code text NOT NULL CHECK (code = lower(code) AND code <> ''),
  most_uses integer CHECK (most_uses > 0),
  last_day date,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (tier_id, code)
);

ALTER TABLE members ALTER name SET DEFAULT '';

ALTER TABLE joinings DROP CONSTRAINT joinings_state_check;
ALTER TABLE joinings
  ADD CONSTRAINT joinings_state_check CHECK (state IN ('open', 'waiting', 'done', 'expired')),
  ADD offer_id text REFERENCES offers,
  ADD answers jsonb NOT NULL DEFAULT '[]',
  ADD code_id uuid REFERENCES joining_codes ON DELETE SET NULL,
  -- The site's clock, from which it is reminded of and expires.
  ADD at timestamptz,
  ADD resume_hash bytea UNIQUE,
  ADD reminded_at timestamptz,
  ADD last_problem text NOT NULL DEFAULT '',
  -- The subscription that this one takes the place of: it is renewed, or switched.
  ADD replaces_id uuid REFERENCES subscriptions;
UPDATE joinings j SET at = s.started_at, offer_id = v.offer_id
  FROM subscriptions s JOIN offer_versions v ON v.id = s.offer_version_id WHERE s.id = j.subscription_id;
ALTER TABLE joinings ALTER at SET NOT NULL, ALTER offer_id SET NOT NULL;
CREATE INDEX ON joinings (at) WHERE state IN ('open', 'waiting');
