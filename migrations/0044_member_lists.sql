-- When a member was last seen, in real time and to the hour; sessions forget it when they end.
ALTER TABLE members ADD seen_at timestamptz;
UPDATE members m SET seen_at = s.seen FROM (SELECT member_id, max(last_seen_at) AS seen FROM sessions GROUP BY 1) s WHERE s.member_id = m.id;

-- Lists are searched by notes and answers too.
CREATE INDEX member_notes_words ON member_notes USING gin (lower(words) gin_trgm_ops);
CREATE INDEX checkouts_answers_text ON checkouts USING gin (lower(jsonb_path_query_array(answers, '$[*].value')::text) gin_trgm_ops) WHERE state = 'done' AND answers <> '[]';
CREATE INDEX checkouts_answers ON checkouts USING gin (answers jsonb_path_ops) WHERE state = 'done' AND answers <> '[]';

-- Pages of a list begin after a member, so its order runs one way; deleted accounts are in none.
DROP INDEX members_joined_at_id_idx;
CREATE INDEX members_by_joining ON members (joined_at DESC, id DESC) WHERE deleted_at IS NULL;

-- A filter of the members' list that one of the staff has given a name.
CREATE TABLE member_views (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  staff_id uuid NOT NULL REFERENCES members (id) ON DELETE CASCADE,
  name text NOT NULL CHECK (name <> ''),
  -- As it is in the address of the list.
  query text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (staff_id, name)
);
