-- Up Migration
-- All of one member's money and access in one mode is a book. Its row is the lock; the version rises with each change.
CREATE TABLE books (
  member_id uuid NOT NULL REFERENCES members,
  mode money_mode NOT NULL,
  version bigint NOT NULL DEFAULT 0,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (member_id, mode)
);
INSERT INTO books (member_id, mode) SELECT DISTINCT member_id, mode FROM subscriptions WHERE member_id IS NOT NULL;

-- What of the past matters later: one row for each ladder, or tier off any.
CREATE TABLE book_summaries (
  member_id uuid NOT NULL REFERENCES members,
  mode money_mode NOT NULL,
  track text NOT NULL,
  had_trial boolean NOT NULL DEFAULT false,
  joined_at timestamptz,
  has_switched_up boolean NOT NULL DEFAULT false,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (member_id, mode, track)
);

-- A joining is a checkout.
ALTER TABLE joinings RENAME TO checkouts;
ALTER TABLE checkouts DROP CONSTRAINT joinings_state_check;
ALTER TABLE checkouts
  ALTER subscription_id DROP NOT NULL,
  ADD slot text NOT NULL DEFAULT '',
  -- Of a switch: the events of the subscription that is left, when the button was pressed.
  ADD replaced_events integer,
  ADD CONSTRAINT checkouts_state CHECK (state IN ('confirming', 'open', 'charging', 'approving', 'awaiting', 'done', 'expired'));

-- What a member answered stands in the checkout by which they joined.
UPDATE checkouts c SET answers = a.answers FROM (
  SELECT subscription_id, jsonb_agg(jsonb_build_object('fieldId', field_id, 'label', label, 'value', value) ORDER BY id) AS answers FROM join_answers GROUP BY 1) a
  WHERE a.subscription_id = c.subscription_id AND c.state = 'done';
DROP TABLE join_answers;
UPDATE checkouts SET answers = '[]' WHERE state = 'expired';

ALTER TABLE subscriptions RENAME started_at TO anchor_at;
ALTER TABLE subscriptions
  ADD began_at timestamptz,
  ADD begun_by text NOT NULL DEFAULT 'first' CHECK (begun_by IN ('first', 'switch', 'down')),
  ADD replaces_id uuid REFERENCES subscriptions,
  -- The end of the last period that began; null where it is counted.
  ADD period_to timestamptz,
  ADD unpaid_charge_id uuid,
  -- When something last happened to it; what falls due before that happens then.
  ADD changed_at timestamptz,
  -- When the worker next has something to do: what falls due, or an attempt that was left open, or a transfer's last day.
  ADD next_at timestamptz,
  -- The offer of a switch down that waits for the end of what is paid.
  ADD switches_to uuid REFERENCES offer_versions,
  ADD discount jsonb,
  -- Payments whose dispute suspends it.
  ADD disputes uuid[] NOT NULL DEFAULT '{}',
  ADD ended_unpaid boolean NOT NULL DEFAULT false,
  ADD charges_issued integer NOT NULL DEFAULT 0;

UPDATE subscriptions s SET begun_by = 'switch', replaces_id = c.replaces_id FROM checkouts c
  WHERE c.subscription_id = s.id AND c.replaces_id IS NOT NULL;
UPDATE checkouts c SET slot = s.slot FROM subscriptions s WHERE s.id = c.subscription_id AND s.slot <> '';
UPDATE subscriptions s SET began_at = coalesce((SELECT min(from_at) FROM holdings h WHERE h.subscription_id = s.id), s.anchor_at)
  WHERE s.state <> 'pending' AND s.period_step IS NOT NULL;
-- A move that the owner asked for goes on with the subscription; one that the member asked for is a switch down.
UPDATE subscriptions SET switches_to = moves_to, moves_to = owner_moved_to WHERE moves_to IS DISTINCT FROM owner_moved_to;
UPDATE subscriptions s SET ended_unpaid = true FROM audit a
  WHERE s.state = 'ended' AND a.action = 'subscription ended unpaid' AND a.subject = 'subscription:' || s.id AND a.at = s.ended_at;

INSERT INTO book_summaries (member_id, mode, track, had_trial, joined_at, has_switched_up)
  SELECT member_id, mode, track, bool_or(had_trial), min(began_at), bool_or(skip_fee AND began_at IS NOT NULL)
  FROM subscriptions WHERE member_id IS NOT NULL GROUP BY 1, 2, 3 HAVING bool_or(began_at IS NOT NULL OR had_trial);

-- A charge has a number, given out once and never computed again.
ALTER TABLE charges DROP CONSTRAINT charges_subscription_id_step_n_key;
ALTER TABLE charges DROP CONSTRAINT charges_amount_check;
ALTER TABLE charges
  ADD number integer,
  ADD kind text NOT NULL DEFAULT 'period' CHECK (kind IN ('first', 'period', 'switch', 'down', 'renewal', 'resume')),
  ADD state text NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'paid', 'dropped')),
  ADD tier_id text REFERENCES tiers,
  ADD period_kind text CHECK (period_kind IN ('trial', 'once', 'repeat')),
  -- What the offer asks for the period, joining fee included, before a discount.
  ADD price bigint,
  -- What money is asked for: the amount less credit.
  ADD due bigint,
  -- Of a switch: credit for unused days, given once it is paid.
  ADD unused jsonb NOT NULL DEFAULT '[]',
  ADD uses_discount boolean NOT NULL DEFAULT false,
  ADD is_move boolean NOT NULL DEFAULT false,
  -- The period as it was really lived.
  ADD lived_from timestamptz,
  ADD lived_to timestamptz,
  ADD is_taken_back boolean NOT NULL DEFAULT false,
  ADD CHECK (amount >= 0);

UPDATE charges c SET number = n.number FROM (
  SELECT id, row_number() OVER (PARTITION BY subscription_id ORDER BY created_at, due_at, id) AS number FROM charges) n WHERE n.id = c.id;
UPDATE charges c SET
  kind = CASE WHEN c.renews THEN 'renewal' WHEN c.number = 1 AND s.begun_by = 'switch' THEN 'switch' WHEN c.number = 1 AND c.step + c.n = 0 THEN 'first' ELSE 'period' END,
  tier_id = coalesce(v.definition -> 'steps' -> c.step ->> 'tier', o.tier_id),
  period_kind = coalesce(v.definition -> 'steps' -> c.step ->> 'kind', 'repeat'),
  price = c.amount,
  due = c.amount - coalesce((SELECT sum(amount) FROM credit_uses u WHERE u.charge_id = c.id), 0)
FROM subscriptions s JOIN offer_versions v ON v.id = s.offer_version_id JOIN offers o ON o.id = v.offer_id WHERE s.id = c.subscription_id;
-- A payment knows what was asked for, where credit was given with it.
UPDATE charges c SET due = p.amount FROM payments p WHERE p.charge_id = c.id AND p.state IN ('succeeded', 'intent');
UPDATE charges SET state = 'paid' WHERE paid_at IS NOT NULL;
-- Of what is unpaid, the newest still counts while it is under way, overdue, or of a checkout that is open.
UPDATE charges c SET state = 'dropped' WHERE paid_at IS NULL AND NOT EXISTS (SELECT 1 FROM payments p WHERE p.charge_id = c.id AND p.state = 'intent')
  AND NOT EXISTS (
    SELECT 1 FROM subscriptions s LEFT JOIN checkouts k ON k.subscription_id = s.id
    WHERE s.id = c.subscription_id AND (s.state = 'overdue' OR (s.state = 'pending' AND k.state = 'open'))
      AND NOT EXISTS (SELECT 1 FROM charges later WHERE later.subscription_id = s.id AND later.number > c.number AND later.paid_at IS NULL));
UPDATE subscriptions s SET
  charges_issued = (SELECT count(*) FROM charges c WHERE c.subscription_id = s.id),
  unpaid_charge_id = (SELECT c.id FROM charges c WHERE c.subscription_id = s.id AND c.paid_at IS NULL ORDER BY c.number DESC LIMIT 1)
  WHERE EXISTS (SELECT 1 FROM charges c WHERE c.subscription_id = s.id);
UPDATE subscriptions SET unpaid_charge_id = NULL WHERE state NOT IN ('pending', 'overdue') AND NOT ended_unpaid;

-- What was paid was lived as it was expected; the last period as the subscription has it.
UPDATE charges SET lived_from = due_at, lived_to = period_to WHERE state = 'paid';
UPDATE charges c SET lived_from = c.due_at + (s.paid_through - c.period_to), lived_to = s.paid_through FROM subscriptions s
  WHERE s.id = c.subscription_id AND c.state = 'paid' AND s.paid_through IS NOT NULL AND c.period_to IS NOT NULL AND s.paid_through > c.period_to
    AND NOT c.renews AND c.id = (SELECT id FROM charges l WHERE l.subscription_id = s.id AND l.state = 'paid' ORDER BY number DESC LIMIT 1)
    AND s.paid_through - c.period_to < c.period_to - c.due_at;
ALTER TABLE charges
  ALTER number SET NOT NULL, ALTER tier_id SET NOT NULL, ALTER period_kind SET NOT NULL, ALTER price SET NOT NULL, ALTER due SET NOT NULL,
  ADD UNIQUE (subscription_id, number),
  ADD CHECK (due BETWEEN 0 AND amount),
  ADD CHECK ((state = 'paid') = (paid_at IS NOT NULL)),
  DROP COLUMN renews;
CREATE INDEX charges_open ON charges (subscription_id) WHERE state = 'open';
CREATE INDEX charges_lived ON charges (subscription_id, number DESC) WHERE lived_from IS NOT NULL AND NOT is_taken_back;

ALTER TABLE payments DROP CONSTRAINT payments_state_check;
ALTER TABLE payments
  -- Withdrawn: the payer chose another way before they sent the money.
  ADD CONSTRAINT payments_state CHECK (state IN ('intent', 'succeeded', 'declined', 'withdrawn')),
  -- Until when a transfer is awaited.
  ADD until_at timestamptz,
  -- Nothing followed from it: all of it goes back.
  ADD is_returned boolean NOT NULL DEFAULT false;
UPDATE payments p SET until_at = p.at + make_interval(days => coalesce((a.settings ->> 'daysToPay')::integer, 0))
  FROM gateway_accounts a WHERE a.id = p.gateway_account_id AND p.is_awaited;
UPDATE payments p SET is_returned = true WHERE EXISTS (SELECT 1 FROM refunds r WHERE r.idempotency_key = 'return:' || p.id);
ALTER TABLE payments DROP COLUMN is_awaited;
ALTER TABLE payments ADD is_awaited boolean NOT NULL GENERATED ALWAYS AS (until_at IS NOT NULL) STORED;
DROP INDEX one_success;
CREATE UNIQUE INDEX one_success ON payments (charge_id) WHERE state = 'succeeded' AND NOT is_returned;
UPDATE charges c SET lived_from = NULL, lived_to = NULL WHERE EXISTS (SELECT 1 FROM payments p WHERE p.charge_id = c.id AND p.is_returned)
  AND NOT EXISTS (SELECT 1 FROM payments p WHERE p.charge_id = c.id AND p.state = 'succeeded' AND NOT p.is_returned);

-- Credit is spent, reserved for a charge that is not paid yet, void, or left.
ALTER TABLE credit_uses
  ADD is_spent boolean NOT NULL DEFAULT true,
  ADD place bigint NOT NULL GENERATED ALWAYS AS IDENTITY,
  DROP CONSTRAINT credit_uses_amount_check,
  ADD CHECK (amount >= 0);
DELETE FROM credit_uses u USING charges c WHERE c.id = u.charge_id AND c.state = 'dropped';
UPDATE credit_uses u SET is_spent = false FROM charges c WHERE c.id = u.charge_id AND c.state = 'open';
ALTER TABLE credits
  ADD spent bigint NOT NULL DEFAULT 0 CHECK (spent >= 0),
  ADD reserved bigint NOT NULL DEFAULT 0 CHECK (reserved >= 0);
UPDATE credits c SET
  spent = coalesce((SELECT sum(amount) FROM credit_uses u WHERE u.credit_id = c.id AND u.is_spent), 0),
  reserved = coalesce((SELECT sum(amount) FROM credit_uses u WHERE u.credit_id = c.id AND NOT u.is_spent), 0);
DROP INDEX credits_member_id_idx;
ALTER TABLE credits DROP COLUMN unspent;
ALTER TABLE credits ADD unspent bigint NOT NULL GENERATED ALWAYS AS (amount - spent - reserved - voided) STORED CHECK (unspent >= 0);
CREATE INDEX ON credits (member_id, mode) WHERE unspent > 0;
CREATE INDEX ON credits (payment_id);

ALTER TABLE disputes ADD lost bigint NOT NULL DEFAULT 0 CHECK (lost >= 0);
UPDATE disputes d SET lost = p.amount - coalesce((SELECT sum(amount) FROM refunds r WHERE r.payment_id = p.id AND r.state = 'succeeded'), 0)
  FROM payments p WHERE p.id = d.payment_id AND d.state = 'lost';
UPDATE subscriptions s SET disputes = d.ids FROM (
  SELECT c.subscription_id, array_agg(d.payment_id) AS ids FROM disputes d JOIN payments p ON p.id = d.payment_id JOIN charges c ON c.id = p.charge_id
  WHERE d.state = 'open' GROUP BY 1) d WHERE d.subscription_id = s.id AND s.state NOT IN ('pending', 'ended') AND s.disputed_at IS NOT NULL;

-- What is held is what its row says, whatever the subscription's state: a dispute ends it, and gives it back.
ALTER TABLE holdings ADD since_at timestamptz;
UPDATE holdings h SET until_at = greatest(h.from_at, s.disputed_at) FROM subscriptions s
  WHERE s.id = h.subscription_id AND s.disputed_at IS NOT NULL AND (h.until_at IS NULL OR h.until_at > s.disputed_at);
UPDATE holdings SET since_at = from_at;
DO $$
BEGIN
  LOOP
    UPDATE holdings h SET since_at = earlier.since_at FROM holdings earlier
    WHERE earlier.member_id = h.member_id AND earlier.tier_id = h.tier_id AND earlier.mode = h.mode AND earlier.id <> h.id
      AND earlier.from_at <= h.from_at AND earlier.since_at < h.since_at
      AND (earlier.until_at IS NULL OR earlier.until_at + make_interval(days => coalesce((SELECT grace_days FROM site LIMIT 1), 0)) >= h.from_at);
    EXIT WHEN NOT FOUND;
  END LOOP;
END $$;
ALTER TABLE holdings ALTER since_at SET NOT NULL;

-- A quote is what a switch was said to come to.
ALTER TABLE checkouts DROP COLUMN quote_id, DROP COLUMN replaces_id;
DELETE FROM switch_quotes;
ALTER TABLE switch_quotes
  DROP COLUMN starts_at,
  ADD added_tax integer NOT NULL DEFAULT 0,
  ADD at_once boolean NOT NULL DEFAULT true,
  ADD unused jsonb NOT NULL DEFAULT '[]';

-- An approval that was asked for under the old rules is asked for anew.
UPDATE agreements SET state = 'ending', next_check_at = now() WHERE state = 'asked'
  AND subscription_id IN (SELECT id FROM subscriptions WHERE state = 'pending');
ALTER TABLE checkouts DROP COLUMN busy_until, DROP COLUMN method_tries;
UPDATE checkouts k SET state = CASE WHEN p.is_awaited THEN 'awaiting' ELSE 'charging' END
  FROM charges c JOIN payments p ON p.charge_id = c.id AND p.state = 'intent' WHERE c.subscription_id = k.subscription_id AND k.state = 'open';
-- What a checkout that has expired would have begun is over.
UPDATE subscriptions s SET state = 'ended', ended_at = k.at FROM checkouts k
  WHERE k.subscription_id = s.id AND k.state = 'expired' AND s.state = 'pending'
    AND NOT EXISTS (SELECT 1 FROM charges c JOIN payments p ON p.charge_id = c.id WHERE c.subscription_id = s.id AND p.state = 'intent');

UPDATE subscriptions s SET next_at = CASE
  WHEN mine.at IS NOT NULL THEN mine.at
  WHEN s.state IN ('pending', 'ended') THEN NULL
  WHEN EXISTS (SELECT 1 FROM subscriptions o JOIN charges c ON c.subscription_id = o.id JOIN payments p ON p.charge_id = c.id AND p.state = 'intent'
    WHERE o.member_id = s.member_id AND o.mode = s.mode AND o.track = s.track AND o.slot = s.slot) THEN NULL
  ELSE s.due_at END
FROM subscriptions same LEFT JOIN LATERAL (
  SELECT coalesce(p.until_at, p.at) AS at FROM charges c JOIN payments p ON p.charge_id = c.id AND p.state = 'intent' WHERE c.subscription_id = same.id LIMIT 1
) mine ON true WHERE same.id = s.id;

DROP INDEX subscriptions_due;
ALTER TABLE subscriptions
  DROP COLUMN disputed_at, DROP COLUMN waits_until, DROP COLUMN owner_moved_to, DROP COLUMN had_trial, DROP COLUMN failures, DROP COLUMN number_from;
CREATE INDEX subscriptions_next ON subscriptions (next_at, id) WHERE next_at IS NOT NULL;
CREATE INDEX ON subscriptions (mode, due_at, began_at DESC, id) WHERE began_at IS NOT NULL;
CREATE INDEX ON subscriptions (mode, began_at DESC, id) WHERE began_at IS NOT NULL;
CREATE INDEX ON subscriptions (mode, paid_through, id) WHERE began_at IS NOT NULL;
CREATE INDEX ON subscriptions (replaces_id) WHERE replaces_id IS NOT NULL;
