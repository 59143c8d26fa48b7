-- Addresses that are told of what happens to memberships, and the messages to them.
CREATE TABLE webhooks (
  id uuid PRIMARY KEY,
  url text NOT NULL,
  secret_sealed text NOT NULL,
  topics text[] NOT NULL,
  -- The tiers that it is told of; null: all.
  tiers text[],
  mode money_mode NOT NULL,
  is_on boolean NOT NULL DEFAULT true,
  created_at timestamptz NOT NULL DEFAULT now(),
  -- Since when no message has arrived; real time.
  failing_since timestamptz
);
CREATE TABLE webhook_messages (
  id uuid PRIMARY KEY,
  webhook_id uuid NOT NULL REFERENCES webhooks ON DELETE CASCADE,
  topic text NOT NULL,
  body text NOT NULL,
  -- The site's clock when it happened.
  at timestamptz NOT NULL,
  state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'sent', 'failed')),
  attempts int NOT NULL DEFAULT 0,
  next_attempt_at timestamptz NOT NULL DEFAULT now(),
  -- What was answered last: a status, or why nothing was.
  answer text NOT NULL DEFAULT '',
  created_at timestamptz NOT NULL DEFAULT now(),
  sent_at timestamptz
);
CREATE INDEX ON webhook_messages (next_attempt_at) WHERE state = 'waiting';
CREATE INDEX ON webhook_messages (webhook_id, created_at DESC, id);
CREATE INDEX ON webhook_messages (created_at);
