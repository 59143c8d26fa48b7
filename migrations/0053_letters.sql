-- What a person chose about the mails of a topic. Where they chose nothing, the topic itself says whether they get them.
ALTER TABLE mail_refusals RENAME TO mail_choices;
ALTER TABLE mail_choices
  ADD is_on boolean NOT NULL DEFAULT false,
  -- Who said so: they themselves, staff for them, or a file that was imported.
  ADD how text NOT NULL DEFAULT 'self' CHECK (how IN ('self', 'staff', 'import'));
ALTER TABLE mail_choices ALTER is_on DROP DEFAULT, ALTER how DROP DEFAULT;
CREATE INDEX mail_choices_by_topic ON mail_choices (topic, member_id) WHERE is_on;

-- People of whom only a confirmed address is known.
CREATE TABLE mail_addresses (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  email text NOT NULL UNIQUE,
  -- They asked for mails, or confirmed the address to read something.
  how text NOT NULL CHECK (how IN ('asked', 'pass')),
  -- What they chose about the mails of a topic; null where they chose nothing.
  gets_posts boolean,
  gets_letters boolean,
  -- The site's clock.
  confirmed_at timestamptz NOT NULL
);
INSERT INTO mail_addresses (email, how, confirmed_at)
  SELECT email, 'pass', min(since_at) FROM held_passes WHERE email IS NOT NULL AND member_id IS NULL AND email NOT IN (SELECT email FROM members) GROUP BY email;

-- Once such a person has an account, by whatever way, it takes over what they chose, and the address is no longer by itself.
CREATE FUNCTION take_over_mail_address() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO mail_choices (member_id, topic, is_on, how, at)
    SELECT NEW.id, c.topic, c.is_on, 'self', a.confirmed_at FROM mail_addresses a
      CROSS JOIN LATERAL (VALUES ('posts', a.gets_posts), ('letters', a.gets_letters)) c (topic, is_on)
    WHERE a.email = NEW.email AND c.is_on IS NOT NULL
    ON CONFLICT DO NOTHING;
  DELETE FROM mail_addresses WHERE email = NEW.email;
  RETURN NULL;
END $$;
CREATE TRIGGER members_take_over_mail_address AFTER INSERT OR UPDATE OF email ON members
  FOR EACH ROW EXECUTE FUNCTION take_over_mail_address();

-- A mailed link by which someone confirms that they want mails.
CREATE TABLE mail_links (
  hash bytea PRIMARY KEY,
  email text NOT NULL,
  topics text[] NOT NULL,
  expires_at timestamptz NOT NULL
);

-- What goes to many: a letter to a list of members, or a post to those who may read it.
CREATE TABLE letters (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  kind text NOT NULL CHECK (kind IN ('letter', 'post')),
  item_id text REFERENCES items ON DELETE CASCADE,
  -- What those get to whom a post is closed.
  closed_get text NOT NULL DEFAULT 'teaser' CHECK (closed_get IN ('teaser', 'nothing')),
  subject text NOT NULL,
  body jsonb NOT NULL,
  -- The filter of the list of members, and whether those go along of whom only an address is known.
  filter jsonb NOT NULL DEFAULT '{}',
  to_addresses boolean NOT NULL DEFAULT false,
  state text NOT NULL DEFAULT 'draft' CHECK (state IN ('draft', 'sending', 'paused', 'sent', 'stopped')),
  version bigint NOT NULL DEFAULT 1,
  made_by uuid REFERENCES members ON DELETE SET NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  -- The site's clock.
  begun_at timestamptz,
  done_at timestamptz,
  -- How far it has got: the last member, then the last address, by id.
  after_member uuid,
  members_done boolean NOT NULL DEFAULT false,
  after_address uuid,
  written integer NOT NULL DEFAULT 0,
  -- When the next few may be written; real time.
  next_at timestamptz NOT NULL DEFAULT now(),
  CHECK ((kind = 'post') = (item_id IS NOT NULL))
);
CREATE UNIQUE INDEX letters_of_item ON letters (item_id) WHERE item_id IS NOT NULL;
CREATE INDEX letters_sending ON letters (begun_at, id) WHERE state = 'sending';

ALTER TABLE mails ADD address_id uuid REFERENCES mail_addresses ON DELETE SET NULL, ADD letter_id uuid REFERENCES letters ON DELETE SET NULL;
CREATE INDEX mails_of_letter ON mails (letter_id, state) WHERE letter_id IS NOT NULL;

ALTER TABLE site
  ADD letters_per_minute integer NOT NULL DEFAULT 60 CHECK (letters_per_minute BETWEEN 1 AND 3000),
  ADD asks_letters boolean NOT NULL DEFAULT false,
  -- Whether it is noted who opens a letter, and who reads on from it.
  ADD counts_opens boolean NOT NULL DEFAULT false;
-- Real time.
CREATE TABLE letter_opens (
  letter_id uuid NOT NULL REFERENCES letters ON DELETE CASCADE,
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  opened_at timestamptz NOT NULL,
  read_at timestamptz,
  PRIMARY KEY (letter_id, member_id)
);
CREATE INDEX letter_opens_of_member ON letter_opens (member_id);
