-- What is bought once: a pass, or a gift card of a tier. Amounts in minor units.
CREATE TABLE products (
  id text PRIMARY KEY,
  kind text NOT NULL CHECK (kind IN ('pass', 'gift-card')),
  pass_id text REFERENCES passes,
  tier_id text REFERENCES tiers,
  name text NOT NULL CHECK (name <> ''),
  amount bigint NOT NULL CHECK (amount > 0),
  currency char(3) NOT NULL,
  -- How long the pass is held, or the tier that is given; null: for good.
  lasts jsonb,
  -- On how many other devices the code of a pass can be used; null: on any number.
  most_devices integer CHECK (most_devices >= 0),
  tax_kind_id text REFERENCES tax_kinds ON DELETE SET NULL,
  on_sale boolean NOT NULL,
  version integer NOT NULL DEFAULT 1,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK ((kind = 'pass') = (pass_id IS NOT NULL)),
  CHECK ((kind = 'gift-card') = (tier_id IS NOT NULL))
);

CREATE TRIGGER raise_site_version AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON products
  FOR EACH STATEMENT EXECUTE FUNCTION raise_site_version();

CREATE TABLE purchases (
  id uuid PRIMARY KEY,
  member_id uuid NOT NULL REFERENCES members,
  mode money_mode NOT NULL,
  product_id text NOT NULL REFERENCES products,
  kind text NOT NULL CHECK (kind IN ('pass', 'gift-card')),
  -- The pass or the tier, and how long and on how many devices, as it was sold.
  item text NOT NULL,
  lasts jsonb,
  most_devices integer,
  state text NOT NULL CHECK (state IN ('pending', 'paid', 'ended')),
  charges_issued integer NOT NULL,
  gateway_account_id uuid,
  customer_ref text,
  method_ref text,
  method_label text,
  method_expires text,
  tax_country text NOT NULL DEFAULT '',
  added_tax bigint NOT NULL DEFAULT 0,
  -- The personal code of a pass, or that of a gift card, from when it is paid.
  code_sealed text,
  code_hash bytea UNIQUE,
  -- The site's clock.
  at timestamptz NOT NULL,
  -- An attempt that was left open is looked at once its lease is over; real time.
  busy_until timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (id, mode),
  FOREIGN KEY (gateway_account_id, mode) REFERENCES gateway_accounts (id, mode)
);
CREATE INDEX purchases_of_member ON purchases (member_id, mode);
CREATE INDEX purchases_pending ON purchases (at) WHERE state = 'pending';

ALTER TABLE charges DROP CONSTRAINT charges_kind_check;
ALTER TABLE charges
  ALTER subscription_id DROP NOT NULL,
  -- Of a purchase of a pass, which is no tier.
  ALTER tier_id DROP NOT NULL,
  ADD purchase_id uuid,
  ADD FOREIGN KEY (purchase_id, mode) REFERENCES purchases (id, mode),
  ADD CONSTRAINT charges_kind_check CHECK (kind IN ('first', 'period', 'switch', 'down', 'renewal', 'resume', 'purchase')),
  ADD CONSTRAINT charges_of_one CHECK (num_nonnulls(subscription_id, purchase_id) = 1),
  ADD CONSTRAINT charges_tier CHECK (tier_id IS NOT NULL OR purchase_id IS NOT NULL),
  ADD UNIQUE (purchase_id, number);

ALTER TABLE held_passes ADD purchase_id uuid REFERENCES purchases;
ALTER TABLE held_passes DROP CONSTRAINT held_passes_why_check;
ALTER TABLE held_passes
  ADD CONSTRAINT held_passes_why_check CHECK (why IN ('password', 'address', 'given', 'code', 'purchase')),
  ADD CONSTRAINT held_passes_purchase CHECK ((why = 'purchase') = (purchase_id IS NOT NULL));
CREATE INDEX held_passes_of_purchase ON held_passes (purchase_id) WHERE purchase_id IS NOT NULL;
