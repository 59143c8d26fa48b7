-- What codes do, and how far: one entry for a single code or for a whole batch of them. A code admits to joining, takes
-- something off what joining costs, or gives a tier or a pass for a time.
CREATE TABLE code_batches (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  name text NOT NULL CHECK (name <> ''),
  admits text[] NOT NULL DEFAULT '{}',
  -- { amount | share, charges }; an amount is in minor units of the currency.
  discount jsonb,
  currency text CHECK (currency ~ '^[A-Z]{3}$'),
  -- The tiers that a discount is for; empty: all.
  tier_ids text[] NOT NULL DEFAULT '{}',
  -- { kind, id, lasts }
  gives jsonb,
  -- Of each code, and of each person for the whole batch.
  most_uses integer CHECK (most_uses > 0),
  most_per_person integer CHECK (most_per_person > 0),
  first_day date,
  last_day date,
  new_members_only boolean NOT NULL DEFAULT false,
  is_on boolean NOT NULL DEFAULT true,
  version integer NOT NULL DEFAULT 1,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK (discount IS NULL OR NOT discount ? 'amount' OR currency IS NOT NULL)
);

CREATE TABLE codes (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  batch_id uuid NOT NULL REFERENCES code_batches ON DELETE CASCADE,
  -- Capitals do not count.
  word text NOT NULL UNIQUE CHECK (word = lower(word) AND word <> ''),
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON codes (batch_id, created_at, id);

-- A word that admitted to several tiers is one code now, with the widest of their limits.
INSERT INTO code_batches (name, admits, most_uses, last_day, created_at)
  SELECT code, array_agg(tier_id ORDER BY tier_id), CASE WHEN bool_or(most_uses IS NULL) THEN NULL ELSE max(most_uses) END,
    CASE WHEN bool_or(last_day IS NULL) THEN NULL ELSE max(last_day) END, min(created_at)
  FROM joining_codes GROUP BY code;
INSERT INTO codes (batch_id, word, created_at) SELECT id, name, created_at FROM code_batches;
ALTER TABLE checkouts DROP CONSTRAINT joinings_code_id_fkey;
UPDATE checkouts k SET code_id = c.id FROM joining_codes j JOIN codes c ON c.word = j.code WHERE k.code_id = j.id;
ALTER TABLE checkouts ADD CONSTRAINT checkouts_code_id_fkey FOREIGN KEY (code_id) REFERENCES codes ON DELETE SET NULL;
DROP TABLE joining_codes;
CREATE INDEX checkouts_code ON checkouts (code_id) WHERE code_id IS NOT NULL;

-- What codes gave: those that admit, or take something off, are counted by their checkouts.
CREATE TABLE code_uses (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  code_id uuid NOT NULL REFERENCES codes ON DELETE CASCADE,
  member_id uuid REFERENCES members ON DELETE SET NULL,
  mode money_mode NOT NULL,
  at timestamptz NOT NULL
);
CREATE INDEX ON code_uses (code_id);
CREATE INDEX ON code_uses (member_id) WHERE member_id IS NOT NULL;

ALTER TABLE held_passes DROP CONSTRAINT held_passes_why_check;
ALTER TABLE held_passes ADD CONSTRAINT held_passes_why_check CHECK (why IN ('password', 'address', 'given', 'code'));
