-- The free offer that people get who register without choosing one; null: an account without a tier.
ALTER TABLE site ADD register_offer_id text REFERENCES offers ON DELETE SET NULL;
-- A code that is good for one person, who was invited at this address.
ALTER TABLE codes ADD email text;
