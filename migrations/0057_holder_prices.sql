-- What the holders of some tiers pay less for an offer or for what is sold once, without a code.
ALTER TABLE offers ADD holder_prices jsonb NOT NULL DEFAULT '[]';
ALTER TABLE products ADD holder_prices jsonb NOT NULL DEFAULT '[]';
