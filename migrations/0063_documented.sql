-- Whether its document is made already: what still waits for one is looked for with every account that is opened.
ALTER TABLE refunds ADD is_documented boolean NOT NULL DEFAULT false;
ALTER TABLE disputes ADD is_documented boolean NOT NULL DEFAULT false;
ALTER TABLE credits ADD is_documented boolean NOT NULL DEFAULT false;
UPDATE refunds r SET is_documented = true FROM documents d WHERE d.refund_id = r.id;
UPDATE disputes q SET is_documented = true FROM documents d WHERE d.dispute_id = q.id;
UPDATE credits c SET is_documented = true FROM documents d WHERE d.credit_id = c.id;
CREATE INDEX refunds_to_document ON refunds (at) WHERE state = 'succeeded' AND NOT is_documented;
CREATE INDEX disputes_to_document ON disputes (opened_at) WHERE state = 'lost' AND NOT is_documented;
CREATE INDEX credits_to_document ON credits (at) WHERE charge_id IS NOT NULL AND NOT is_documented;
