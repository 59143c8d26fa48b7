-- What lists of the Desk search in: part of a word is found by its groups of three letters.
CREATE EXTENSION IF NOT EXISTS pg_trgm;
ALTER TABLE members ADD search_text text GENERATED ALWAYS AS (lower(name || ' ' || email)) STORED;
CREATE INDEX ON members USING gin (search_text gin_trgm_ops);
ALTER TABLE documents ADD search_text text GENERATED ALWAYS AS (
  lower(label || ' ' || coalesce(content -> 'buyer' ->> 'name', '') || ' ' || coalesce(content -> 'buyer' ->> 'email', ''))
) STORED;
CREATE INDEX ON documents USING gin (search_text gin_trgm_ops);
ALTER TABLE mails ADD search_text text GENERATED ALWAYS AS (lower(to_address || ' ' || subject)) STORED;
CREATE INDEX ON mails USING gin (search_text gin_trgm_ops);
CREATE INDEX ON payments USING gin (lower(gateway_ref) gin_trgm_ops);
CREATE INDEX ON charges USING gin (lower(reference) gin_trgm_ops) WHERE reference IS NOT NULL;

-- The orders of lists, and what they are narrowed to.
CREATE INDEX ON members (joined_at DESC, id);
CREATE INDEX ON members (staff_role) WHERE staff_role IS NOT NULL;
CREATE INDEX ON members (lower(name), id);
CREATE INDEX ON subscriptions (mode, due_at, started_at DESC, id) WHERE state <> 'pending';
CREATE INDEX ON subscriptions (mode, started_at DESC, id) WHERE state <> 'pending';
CREATE INDEX ON subscriptions (mode, paid_through, id) WHERE state <> 'pending';
CREATE INDEX ON subscriptions (mode, state);
DROP INDEX payments_mode_at_idx;
CREATE INDEX ON payments (mode, at DESC, created_at DESC);
CREATE INDEX ON payments (mode, state, at DESC, created_at DESC);
CREATE INDEX ON payments (mode, amount DESC, at DESC);
CREATE INDEX ON payments (mode, coalesce(settled_at, at));
CREATE INDEX ON gateway_events (received_at DESC);
CREATE INDEX ON gateway_events (state, received_at DESC);
