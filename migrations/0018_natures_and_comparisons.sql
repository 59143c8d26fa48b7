-- Up Migration

-- What kind of gateway an account is at: the adapter says so when it is connected.
ALTER TABLE gateway_accounts ADD COLUMN nature text;
UPDATE gateway_accounts SET nature = CASE gateway
  WHEN 'curlew-cards' THEN 'card' WHEN 'dunlin-wallet' THEN 'wallet' ELSE 'transfer' END;
ALTER TABLE gateway_accounts
  ALTER COLUMN nature SET NOT NULL,
  ADD CHECK (nature IN ('card', 'wallet', 'transfer'));

-- The last comparison of an account's books with the gateway's own list, and who is at the next; real time.
ALTER TABLE gateway_accounts
  ADD COLUMN comparison jsonb,
  ADD COLUMN compared_at timestamptz,
  ADD COLUMN comparing_until timestamptz;
