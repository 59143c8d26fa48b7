-- Up Migration
-- Comments: whether a kind's items have them, who reads and who writes them, and whether they are held for approval.
ALTER TABLE kinds ADD COLUMN comments jsonb NOT NULL
  DEFAULT '{"isOn": false, "readers": null, "writers": null, "isHeld": true}';

-- An item's own choice; null where it is as its kind.
ALTER TABLE items ADD COLUMN comments_on boolean;

CREATE TABLE comments (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  item_id text NOT NULL REFERENCES items ON DELETE CASCADE,
  member_id uuid REFERENCES members ON DELETE SET NULL,
  -- The comment that began the conversation; null for one that began one.
  thread_id uuid REFERENCES comments ON DELETE CASCADE,
  words text NOT NULL CHECK (length(words) BETWEEN 1 AND 4000),
  state text NOT NULL CHECK (state IN ('waiting', 'shown', 'removed')),
  -- The same form sent twice is one comment.
  form_key uuid NOT NULL,
  at timestamptz NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (member_id, form_key)
);
CREATE INDEX comments_of_item ON comments (item_id, at DESC, id) WHERE thread_id IS NULL;
CREATE INDEX comments_of_thread ON comments (thread_id, at) WHERE thread_id IS NOT NULL;
CREATE INDEX comments_by_state ON comments (state, at DESC, id);

-- Mails of a topic that a member has turned off.
CREATE TABLE mail_refusals (
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  topic text NOT NULL,
  at timestamptz NOT NULL,
  PRIMARY KEY (member_id, topic)
);
-- The topic of a mail that its reader can turn off with one click; null for one that they cannot.
ALTER TABLE mails ADD COLUMN topic text;

ALTER TABLE staff_mails DROP CONSTRAINT staff_mails_kind_check;
ALTER TABLE staff_mails ADD CONSTRAINT staff_mails_kind_check
  CHECK (kind IN ('joined', 'failed', 'disputed', 'left', 'transfer', 'comment', 'weekly'));
