-- What a code gave, so that a gift card that is refunded can be ended for the member who used it.
ALTER TABLE code_uses ADD holding_id uuid REFERENCES holdings ON DELETE SET NULL;
CREATE INDEX code_uses_of_holding ON code_uses (holding_id) WHERE holding_id IS NOT NULL;
ALTER TABLE purchases ADD gift_ended boolean NOT NULL DEFAULT false;
CREATE INDEX purchases_with_gift_to_end ON purchases (at) WHERE kind = 'gift-card' AND state = 'ended' AND NOT gift_ended;
