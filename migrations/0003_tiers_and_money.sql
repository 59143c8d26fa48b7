-- Up Migration
CREATE TABLE ladders (
  id text PRIMARY KEY,
  name text NOT NULL CHECK (name <> ''),
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE tiers (
  id text PRIMARY KEY,
  name text NOT NULL CHECK (name <> ''),
  description text NOT NULL DEFAULT '',
  key_cut jsonb NOT NULL,
  ladder_id text REFERENCES ladders,
  rung integer,
  on_join_page boolean NOT NULL DEFAULT true,
  position integer NOT NULL DEFAULT 0,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (ladder_id, rung),
  CHECK ((ladder_id IS NULL) = (rung IS NULL))
);
-- No two tiers have the same key.
CREATE UNIQUE INDEX ON tiers ((key_cut -> 'notches'));

CREATE TABLE offers (
  id text PRIMARY KEY,
  tier_id text NOT NULL REFERENCES tiers,
  name text NOT NULL CHECK (name <> ''),
  on_sale boolean NOT NULL DEFAULT true,
  position integer NOT NULL DEFAULT 0,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON offers (tier_id);

-- What was bought never changes: editing an offer's money adds a version.
CREATE TABLE offer_versions (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  offer_id text NOT NULL REFERENCES offers,
  version integer NOT NULL CHECK (version > 0),
  currency char(3) NOT NULL,
  definition jsonb NOT NULL,
  is_paid boolean NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (offer_id, version)
);
CREATE TRIGGER offer_versions_never_change BEFORE UPDATE ON offer_versions FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE gateway_accounts (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  gateway text NOT NULL,
  mode money_mode NOT NULL,
  label text NOT NULL,
  site_key text NOT NULL,
  secret_key_sealed text NOT NULL,
  webhook_ref text,
  webhook_secret_sealed text,
  webhook_error text,
  heard_at timestamptz,
  checked_at timestamptz NOT NULL,
  is_on boolean NOT NULL DEFAULT true,
  created_at timestamptz NOT NULL DEFAULT now(),
  -- For the composite keys below, which keep test and live apart.
  UNIQUE (id, mode),
  UNIQUE (gateway, site_key)
);

CREATE TABLE gateway_events (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  gateway_account_id uuid NOT NULL REFERENCES gateway_accounts,
  -- The sender's own id of the message; a refused message's id proves nothing and is not kept unique.
  message_id text NOT NULL,
  payload jsonb NOT NULL,
  state text NOT NULL CHECK (state IN ('new', 'done', 'ignored', 'refused')),
  result text NOT NULL DEFAULT '',
  attempts integer NOT NULL DEFAULT 0,
  next_attempt_at timestamptz NOT NULL DEFAULT now(),
  received_at timestamptz NOT NULL DEFAULT now(),
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX ON gateway_events (gateway_account_id, message_id) WHERE state <> 'refused';
CREATE INDEX ON gateway_events (next_attempt_at) WHERE state = 'new';

CREATE TABLE subscriptions (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  member_id uuid REFERENCES members,
  mode money_mode NOT NULL,
  -- The ladder, or the tier where it stands on none: one running subscription a person and track.
  track text NOT NULL,
  offer_version_id uuid NOT NULL REFERENCES offer_versions,
  state text NOT NULL CHECK (state IN ('pending', 'trial', 'active', 'overdue', 'paused', 'cancelling', 'ended')),
  started_at timestamptz NOT NULL,
  skip_trial boolean NOT NULL DEFAULT false,
  period_step integer,
  period_n integer,
  paid_through timestamptz,
  due_at timestamptz,
  failures integer NOT NULL DEFAULT 0,
  first_failed_at timestamptz,
  ended_at timestamptz,
  gateway_account_id uuid,
  customer_ref text,
  method_ref text,
  method_label text,
  -- A worker's lease, in real time.
  busy_until timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (id, mode),
  FOREIGN KEY (gateway_account_id, mode) REFERENCES gateway_accounts (id, mode),
  CHECK (member_id IS NOT NULL OR state = 'pending'),
  CHECK ((period_step IS NULL) = (period_n IS NULL)),
  CHECK ((state = 'ended') = (ended_at IS NOT NULL)),
  CHECK (state NOT IN ('overdue', 'cancelling') OR due_at IS NOT NULL)
);
CREATE UNIQUE INDEX one_running_subscription ON subscriptions (member_id, mode, track) WHERE state NOT IN ('pending', 'ended');
CREATE INDEX ON subscriptions (due_at) WHERE due_at IS NOT NULL AND state NOT IN ('pending', 'ended');
CREATE INDEX ON subscriptions (member_id);

CREATE TABLE charges (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  subscription_id uuid NOT NULL,
  mode money_mode NOT NULL,
  step integer NOT NULL,
  n integer NOT NULL,
  amount bigint NOT NULL CHECK (amount > 0),
  joining_fee bigint NOT NULL CHECK (joining_fee BETWEEN 0 AND amount),
  currency char(3) NOT NULL,
  due_at timestamptz NOT NULL,
  period_to timestamptz,
  paid_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (subscription_id, step, n),
  UNIQUE (id, mode),
  FOREIGN KEY (subscription_id, mode) REFERENCES subscriptions (id, mode)
);

-- One attempt to collect a charge. The row is the intent, written before the gateway is called.
CREATE TABLE payments (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  charge_id uuid NOT NULL,
  mode money_mode NOT NULL,
  gateway_account_id uuid NOT NULL,
  attempt integer NOT NULL CHECK (attempt > 0),
  idempotency_key text NOT NULL UNIQUE,
  amount bigint NOT NULL CHECK (amount > 0),
  currency char(3) NOT NULL,
  state text NOT NULL DEFAULT 'intent' CHECK (state IN ('intent', 'succeeded', 'declined')),
  gateway_ref text,
  decline_code text,
  -- The site's clock.
  at timestamptz NOT NULL,
  settled_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (charge_id, attempt),
  UNIQUE (gateway_account_id, gateway_ref),
  FOREIGN KEY (charge_id, mode) REFERENCES charges (id, mode),
  FOREIGN KEY (gateway_account_id, mode) REFERENCES gateway_accounts (id, mode),
  CHECK ((state = 'intent') = (settled_at IS NULL)),
  CHECK (state <> 'succeeded' OR gateway_ref IS NOT NULL)
);
CREATE UNIQUE INDEX one_open_attempt ON payments (charge_id) WHERE state = 'intent';
CREATE UNIQUE INDEX one_success ON payments (charge_id) WHERE state = 'succeeded';

CREATE TABLE holdings (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  member_id uuid NOT NULL REFERENCES members,
  tier_id text NOT NULL REFERENCES tiers,
  mode money_mode NOT NULL,
  why text NOT NULL CHECK (why IN ('subscription', 'gift', 'import')),
  subscription_id uuid,
  is_paid boolean NOT NULL,
  from_at timestamptz NOT NULL,
  -- Null: no end is known.
  until_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  FOREIGN KEY (subscription_id, mode) REFERENCES subscriptions (id, mode),
  CHECK ((why = 'subscription') = (subscription_id IS NOT NULL)),
  CHECK (until_at IS NULL OR until_at >= from_at),
  EXCLUDE USING gist (subscription_id WITH =, tstzrange(from_at, until_at) WITH &&) WHERE (subscription_id IS NOT NULL)
);
CREATE INDEX ON holdings (member_id);

-- One attempt of a person to join, from the first press of the button to the end.
CREATE TABLE joinings (
  id uuid PRIMARY KEY,
  subscription_id uuid NOT NULL UNIQUE REFERENCES subscriptions,
  track text NOT NULL,
  mode money_mode NOT NULL,
  member_id uuid REFERENCES members,
  email text NOT NULL,
  name text NOT NULL,
  password_hash text,
  return_to text NOT NULL,
  state text NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'done')),
  method_tries integer NOT NULL DEFAULT 0,
  busy_until timestamptz,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON joinings (email, track, mode);
