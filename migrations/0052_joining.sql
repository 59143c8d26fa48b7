-- Whether people can join at all, whatever the tiers say: open, with a code only, or not.
ALTER TABLE site ADD joining text NOT NULL DEFAULT 'open' CHECK (joining IN ('open', 'by-code', 'closed'));
