-- Up Migration

-- Lists and Today ask for what is disputed; few subscriptions ever are.
CREATE INDEX subscriptions_disputed ON subscriptions (mode, member_id) WHERE disputes <> '{}';
