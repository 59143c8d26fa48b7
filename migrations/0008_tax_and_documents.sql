-- Up Migration
-- What is sold may be taxed in different ways: each tier is of one kind.
CREATE TABLE tax_kinds (
  id text PRIMARY KEY,
  name text NOT NULL CHECK (name <> ''),
  position integer NOT NULL DEFAULT 0,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE TABLE tax_rates (
  kind_id text NOT NULL REFERENCES tax_kinds ON DELETE CASCADE,
  -- ISO 3166-1 alpha-2; '' for everywhere else.
  country text NOT NULL CHECK (country ~ '^([A-Z]{2})?$'),
  name text NOT NULL CHECK (name <> ''),
  -- Thousandths of a per cent: 20 % is 20000.
  rate integer NOT NULL CHECK (rate BETWEEN 0 AND 100000),
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (kind_id, country)
);
ALTER TABLE tiers ADD tax_kind_id text REFERENCES tax_kinds ON DELETE SET NULL;
ALTER TABLE site
  ADD tax_way text NOT NULL DEFAULT 'none' CHECK (tax_way IN ('none', 'included', 'added')),
  ADD home_country text NOT NULL DEFAULT '' CHECK (home_country ~ '^([A-Z]{2})?$'),
  -- Who sells, as it stands on invoices.
  ADD seller text NOT NULL DEFAULT '',
  ADD tax_number text NOT NULL DEFAULT '',
  ADD document_prefix text NOT NULL DEFAULT '';
ALTER TABLE members
  ADD country text NOT NULL DEFAULT '' CHECK (country ~ '^([A-Z]{2})?$'),
  -- What the member wants to read on their invoices besides their name.
  ADD invoice_words text NOT NULL DEFAULT '';
ALTER TABLE subscriptions
  ADD tax_country text NOT NULL DEFAULT '' CHECK (tax_country ~ '^([A-Z]{2})?$'),
  -- The rate that was added to the price when it was bought, as in tax_rates: what was bought does not change.
  ADD added_tax integer NOT NULL DEFAULT 0 CHECK (added_tax BETWEEN 0 AND 100000);

-- Invoices, and documents of refunds and credits. They are numbered without gaps: the counter is locked while they are.
CREATE TABLE document_counters (
  mode money_mode NOT NULL,
  kind text NOT NULL CHECK (kind IN ('invoice', 'refund', 'credit')),
  last integer NOT NULL DEFAULT 0,
  PRIMARY KEY (mode, kind)
);
INSERT INTO document_counters (mode, kind)
  SELECT m.mode, k.kind FROM unnest(ARRAY['test', 'live']::money_mode[]) m (mode), unnest(ARRAY['invoice', 'refund', 'credit']) k (kind);
CREATE TABLE documents (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  mode money_mode NOT NULL,
  kind text NOT NULL CHECK (kind IN ('invoice', 'refund', 'credit')),
  number integer NOT NULL CHECK (number > 0),
  label text NOT NULL,
  member_id uuid REFERENCES members,
  -- What it is the document of: one of the four. The charge stands there too where money of it went back.
  charge_id uuid NOT NULL REFERENCES charges,
  refund_id uuid UNIQUE REFERENCES refunds,
  dispute_id uuid UNIQUE REFERENCES disputes,
  credit_id uuid UNIQUE REFERENCES credits,
  currency char(3) NOT NULL,
  total bigint NOT NULL CHECK (total > 0),
  tax bigint NOT NULL CHECK (tax BETWEEN 0 AND total),
  -- The site's clock.
  at timestamptz NOT NULL,
  content jsonb NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (mode, kind, number),
  CHECK ((kind = 'invoice') = (num_nonnulls(refund_id, dispute_id, credit_id) = 0)),
  CHECK ((kind = 'credit') = (credit_id IS NOT NULL))
);
CREATE UNIQUE INDEX one_invoice ON documents (charge_id) WHERE kind = 'invoice';
CREATE INDEX ON documents (member_id, at DESC);
CREATE INDEX ON documents (mode, at DESC);
CREATE TRIGGER documents_never_change BEFORE UPDATE ON documents FOR EACH ROW EXECUTE FUNCTION refuse_change();

ALTER TABLE charges ADD is_invoiced boolean NOT NULL DEFAULT false;
CREATE INDEX charges_to_invoice ON charges (paid_at) WHERE paid_at IS NOT NULL AND NOT is_invoiced;

-- The charge whose unused days a credit is for.
ALTER TABLE credits ADD charge_id uuid REFERENCES charges;
UPDATE credits c SET charge_id = p.charge_id FROM payments p WHERE p.id = c.payment_id;
