-- By what members come into a group without staff: a tier they get, an offer or a code they join by, an answer they give.
CREATE TABLE group_sources (
  id uuid PRIMARY KEY,
  group_id text NOT NULL REFERENCES groups ON DELETE CASCADE,
  kind text NOT NULL CHECK (kind IN ('tier', 'offer', 'code', 'answer')),
  -- The id of the tier, the offer, the batch of codes, or the question.
  source text NOT NULL,
  -- Of a question: the answer.
  value text NOT NULL DEFAULT '',
  -- Whether they leave the group when the tier or the membership that brought them ends.
  takes_out boolean NOT NULL,
  UNIQUE (group_id, kind, source, value)
);
-- What brought a member in, where they leave with it.
ALTER TABLE group_members ADD while_tier text REFERENCES tiers ON DELETE CASCADE;
ALTER TABLE group_members ADD while_subscription uuid REFERENCES subscriptions ON DELETE CASCADE;
CREATE INDEX ON group_members (while_tier) WHERE while_tier IS NOT NULL;
CREATE INDEX ON group_members (while_subscription) WHERE while_subscription IS NOT NULL;
