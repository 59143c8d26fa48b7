-- Up Migration
ALTER TABLE subscriptions
  -- The place in the offer at which the schedule begun at started_at takes it up.
  ADD takes_up_step integer NOT NULL DEFAULT 0,
  ADD takes_up_n integer NOT NULL DEFAULT 0,
  -- A pause was asked for, which begins at the end of what is paid.
  ADD pauses boolean NOT NULL DEFAULT false,
  -- While a payment is disputed nothing falls due and nothing is held.
  ADD disputed_at timestamptz,
  -- One trial a person and track, whatever became of the subscription afterwards.
  ADD had_trial boolean NOT NULL DEFAULT false,
  -- Where the payer has to act (a transfer), how long they are waited for; the site's clock.
  ADD waits_until timestamptz,
  ADD CHECK (state <> 'paused' OR due_at IS NULL);
-- What is due next, in order: a worker takes the first that nobody else has.
DROP INDEX subscriptions_due_at_idx;
CREATE INDEX subscriptions_due ON subscriptions ((greatest(due_at, waits_until)), id)
  WHERE due_at IS NOT NULL AND state NOT IN ('pending', 'ended') AND disputed_at IS NULL;
UPDATE subscriptions s SET had_trial = true FROM offer_versions v
  WHERE v.id = s.offer_version_id AND s.state <> 'pending' AND NOT s.skip_trial AND v.definition -> 'steps' @> '[{"kind": "trial"}]';

ALTER TABLE gateway_accounts
  -- The order at checkout.
  ADD position integer NOT NULL DEFAULT 0,
  -- What a gateway without keys is told by the owner: whom and where to pay.
  ADD settings jsonb NOT NULL DEFAULT '{}',
  ADD last_error text,
  ADD last_error_at timestamptz;
ALTER TABLE gateway_accounts RENAME is_on TO at_checkout;

-- Connecting by a gateway's consent page: what came back must belong to what was asked.
CREATE TABLE consents (
  state_hash bytea PRIMARY KEY,
  gateway text NOT NULL,
  mode money_mode NOT NULL,
  staff_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  created_at timestamptz NOT NULL DEFAULT now()
);

-- What a payer approved at a wallet that bills by itself. Written before the wallet is asked.
CREATE TABLE agreements (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  subscription_id uuid NOT NULL,
  mode money_mode NOT NULL,
  gateway_account_id uuid NOT NULL,
  ref text,
  approve_url text,
  state text NOT NULL DEFAULT 'asked' CHECK (state IN ('asked', 'running', 'ending', 'ended')),
  -- The site's clock.
  at timestamptz NOT NULL,
  ended_at timestamptz,
  next_check_at timestamptz NOT NULL DEFAULT now(),
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (gateway_account_id, ref),
  FOREIGN KEY (subscription_id, mode) REFERENCES subscriptions (id, mode),
  FOREIGN KEY (gateway_account_id, mode) REFERENCES gateway_accounts (id, mode)
);
CREATE UNIQUE INDEX one_running_agreement ON agreements (subscription_id) WHERE state = 'running';
CREATE INDEX ON agreements (next_check_at) WHERE state IN ('asked', 'ending');

ALTER TABLE payments
  -- A try of the member's own accord: refused, it does not count as one of the schedule's.
  ADD by_member boolean NOT NULL DEFAULT false,
  -- The charge is the payer's to settle, by a transfer.
  ADD is_awaited boolean NOT NULL DEFAULT false;
CREATE INDEX ON payments (mode, at DESC);
-- What the payer writes on a transfer: one for a charge, however often they are reminded.
ALTER TABLE charges ADD reference text UNIQUE;

CREATE TABLE refunds (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  payment_id uuid NOT NULL REFERENCES payments,
  mode money_mode NOT NULL,
  idempotency_key text NOT NULL UNIQUE,
  amount bigint NOT NULL CHECK (amount > 0),
  currency char(3) NOT NULL,
  state text NOT NULL DEFAULT 'intent' CHECK (state IN ('intent', 'succeeded', 'refused')),
  gateway_ref text,
  reason text NOT NULL DEFAULT '',
  ends_access boolean NOT NULL DEFAULT false,
  -- The site's clock.
  at timestamptz NOT NULL,
  settled_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (payment_id, gateway_ref),
  CHECK ((state = 'intent') = (settled_at IS NULL))
);
CREATE UNIQUE INDEX one_open_refund ON refunds (payment_id) WHERE state = 'intent';
CREATE INDEX ON refunds (payment_id);

CREATE TABLE disputes (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  payment_id uuid NOT NULL UNIQUE REFERENCES payments,
  mode money_mode NOT NULL,
  state text NOT NULL CHECK (state IN ('open', 'won', 'lost')),
  opened_at timestamptz NOT NULL,
  closed_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK ((state = 'open') = (closed_at IS NULL))
);

-- Money that came and belongs to nothing that runs: it is shown, and returned.
CREATE TABLE stray_payments (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  gateway_account_id uuid NOT NULL,
  mode money_mode NOT NULL,
  gateway_ref text NOT NULL,
  subscription_id uuid REFERENCES subscriptions,
  amount bigint NOT NULL CHECK (amount > 0),
  currency char(3) NOT NULL,
  reason text NOT NULL,
  state text NOT NULL DEFAULT 'kept' CHECK (state IN ('kept', 'returned')),
  at timestamptz NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (gateway_account_id, gateway_ref),
  FOREIGN KEY (gateway_account_id, mode) REFERENCES gateway_accounts (id, mode)
);

-- Lines of bank statements, each known once however often its statement is imported.
CREATE TABLE statement_lines (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  gateway_account_id uuid NOT NULL,
  mode money_mode NOT NULL,
  fingerprint text NOT NULL,
  booked_on date NOT NULL,
  amount bigint NOT NULL,
  currency char(3) NOT NULL,
  payer text NOT NULL,
  words text NOT NULL,
  payment_id uuid UNIQUE REFERENCES payments,
  -- Why it matched nothing, or what staff made of it.
  note text NOT NULL DEFAULT '',
  is_put_aside boolean NOT NULL DEFAULT false,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (gateway_account_id, fingerprint),
  FOREIGN KEY (gateway_account_id, mode) REFERENCES gateway_accounts (id, mode)
);

-- A refund or a lost dispute voids what is left of the credit that came from its payment.
ALTER TABLE credits ADD voided bigint NOT NULL DEFAULT 0 CHECK (voided >= 0);
