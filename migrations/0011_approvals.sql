-- Up Migration
-- What an approval is for: a wallet bills one version of an offer, and another needs another approval.
ALTER TABLE agreements ADD offer_version_id uuid REFERENCES offer_versions;
UPDATE agreements a SET offer_version_id = s.offer_version_id FROM subscriptions s WHERE s.id = a.subscription_id;
ALTER TABLE agreements ALTER offer_version_id SET NOT NULL;
