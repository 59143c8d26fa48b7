-- Up Migration
-- Money owed to a member: each names the payment it came from. It is spent by later charges, oldest first.
CREATE TABLE credits (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  member_id uuid NOT NULL REFERENCES members,
  mode money_mode NOT NULL,
  currency char(3) NOT NULL,
  amount bigint NOT NULL CHECK (amount > 0),
  unspent bigint NOT NULL CHECK (unspent BETWEEN 0 AND amount),
  payment_id uuid REFERENCES payments,
  reason text NOT NULL,
  -- The site's clock.
  at timestamptz NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON credits (member_id) WHERE unspent > 0;

CREATE TABLE credit_uses (
  credit_id uuid NOT NULL REFERENCES credits,
  charge_id uuid NOT NULL REFERENCES charges,
  amount bigint NOT NULL CHECK (amount > 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (credit_id, charge_id)
);
CREATE INDEX ON credit_uses (charge_id);

-- A charge that a member asked for before its time: it renews what was paid once.
ALTER TABLE charges ADD renews boolean NOT NULL DEFAULT false;

-- What a switch was said to cost: the quote shown is the quote charged.
CREATE TABLE switch_quotes (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  subscription_id uuid NOT NULL,
  mode money_mode NOT NULL,
  offer_version_id uuid NOT NULL REFERENCES offer_versions,
  direction text NOT NULL CHECK (direction IN ('up', 'down')),
  -- The site's clock, and the subscription's count of events at that moment.
  at timestamptz NOT NULL,
  events integer NOT NULL,
  starts_at timestamptz NOT NULL,
  credit bigint NOT NULL CHECK (credit >= 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  FOREIGN KEY (subscription_id, mode) REFERENCES subscriptions (id, mode)
);
CREATE INDEX ON switch_quotes (created_at);

ALTER TABLE joinings ADD quote_id uuid REFERENCES switch_quotes;
