-- The last settled period when an approval was asked for: what it bills first is the one after it.
ALTER TABLE agreements ADD after_step integer, ADD after_n integer;
UPDATE agreements a SET after_step = s.period_step, after_n = s.period_n FROM subscriptions s
  WHERE s.id = a.subscription_id AND a.state = 'asked';
