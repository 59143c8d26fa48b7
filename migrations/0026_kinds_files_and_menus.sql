-- Up Migration
-- Kinds of items. A name that is empty is the product's own word, in the site's language.
CREATE TABLE kinds (
  id text PRIMARY KEY,
  name text NOT NULL DEFAULT '',
  plural text NOT NULL DEFAULT '',
  -- The address of its list, below which its items are. Null: a tree of pages.
  path text UNIQUE CHECK (path ~ '^/.'),
  position integer NOT NULL DEFAULT 0,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK (path IS NOT NULL OR id = 'page')
);
INSERT INTO kinds (id, path, position) VALUES
  ('page', NULL, 0), ('post', '/posts', 1), ('link', '/links', 2), ('file', '/files', 3);

ALTER TABLE items DROP CONSTRAINT items_type_check;
ALTER TABLE items
  ADD FOREIGN KEY (type) REFERENCES kinds,
  -- Where a link leads.
  ADD target text CHECK (target <> ''),
  ADD picture_id uuid REFERENCES pictures,
  ADD picture_alt text NOT NULL DEFAULT '',
  -- When it was last out, where it is no longer.
  ADD was_published_at timestamptz,
  ADD trashed_at timestamptz,
  -- How many words its text has, sections included.
  ADD words integer NOT NULL DEFAULT 0,
  -- What of its text is open to all who are let in; for the search.
  ADD body_text text NOT NULL DEFAULT '',
  ADD search_language regconfig NOT NULL DEFAULT 'simple',
  ADD title_words tsvector GENERATED ALWAYS AS (to_tsvector(search_language, title)) STORED,
  ADD summary_words tsvector GENERATED ALWAYS AS (to_tsvector(search_language, summary)) STORED,
  ADD body_words tsvector GENERATED ALWAYS AS (to_tsvector(search_language, body_text)) STORED,
  ADD CHECK ((type = 'link') = (target IS NOT NULL)),
  ADD CHECK (trashed_at IS NULL OR published_at IS NULL);
UPDATE items SET
  search_language = CASE WHEN (SELECT language FROM site) LIKE 'de%' THEN 'german' ELSE 'english' END::regconfig,
  words = (SELECT coalesce(sum(cardinality(regexp_split_to_array(trim(t #>> '{}'), '\s+'))), 0)
           FROM jsonb_path_query(body, '$.**.text') t),
  -- Of items with sections the text is filled in when they are next saved: what is closed must not be found.
  body_text = CASE WHEN jsonb_path_exists(body, '$.** ? (@.type == "section" || @.type == "sectionWords")') THEN ''
    ELSE left((SELECT coalesce(string_agg(t #>> '{}', ' '), '') FROM jsonb_path_query(body, '$.**.text') t), 400000) END;
CREATE INDEX ON items USING gin ((title_words || summary_words || body_words));

-- What is in the trash gives its address up.
ALTER TABLE items DROP CONSTRAINT items_path_key;
CREATE UNIQUE INDEX items_path_key ON items (path) WHERE trashed_at IS NULL;
CREATE INDEX ON items (parent_id);
CREATE INDEX ON items (type, published_at DESC, id) WHERE trashed_at IS NULL;
CREATE INDEX ON items (published_at DESC, id) WHERE trashed_at IS NULL;

CREATE TABLE tags (
  id text PRIMARY KEY,
  name text NOT NULL CHECK (name <> ''),
  position integer NOT NULL DEFAULT 0,
  created_at timestamptz NOT NULL DEFAULT now()
);
INSERT INTO tags (id, name) SELECT DISTINCT tag, tag FROM items, unnest(tags) AS tag WHERE tag <> '';
CREATE INDEX ON items USING gin (tags);

-- What an item was, at each version.
CREATE TABLE item_revisions (
  item_id text NOT NULL REFERENCES items ON DELETE CASCADE,
  version integer NOT NULL,
  saved_at timestamptz NOT NULL,
  saved_by uuid REFERENCES members ON DELETE SET NULL,
  title text NOT NULL,
  summary text NOT NULL,
  body jsonb NOT NULL,
  author text NOT NULL,
  PRIMARY KEY (item_id, version)
);
INSERT INTO item_revisions (item_id, version, saved_at, title, summary, body, author)
  SELECT id, version, updated_at, title, summary, body, author FROM items;

-- What is being written and is not saved yet, for each person who writes.
CREATE TABLE item_drafts (
  member_id uuid NOT NULL REFERENCES members ON DELETE CASCADE,
  -- The item, or "new" and the kind of one that is not there yet.
  item_key text NOT NULL,
  base_version integer,
  title text NOT NULL,
  summary text NOT NULL,
  body jsonb NOT NULL,
  saved_at timestamptz NOT NULL,
  PRIMARY KEY (member_id, item_key)
);
CREATE INDEX ON item_drafts (item_key);

-- Addresses that items had.
CREATE TABLE redirects (
  path text PRIMARY KEY,
  item_id text NOT NULL REFERENCES items ON DELETE CASCADE,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON redirects (item_id);

-- A picture, and the same in a smaller width. Those of content are seen by those who see what shows them.
ALTER TABLE pictures
  ADD of text NOT NULL DEFAULT 'tier' CHECK (of IN ('tier', 'content')),
  ADD name text NOT NULL DEFAULT '',
  ADD small bytea;
CREATE TABLE item_pictures (
  item_id text NOT NULL REFERENCES items ON DELETE CASCADE,
  picture_id uuid NOT NULL REFERENCES pictures,
  PRIMARY KEY (item_id, picture_id)
);
CREATE INDEX ON item_pictures (picture_id);

-- The bytes of files, in pieces, so that a part can be read alone.
CREATE TABLE files (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  -- Null while it is being uploaded.
  item_id text UNIQUE REFERENCES items ON DELETE CASCADE,
  name text NOT NULL CHECK (name <> ''),
  media_type text NOT NULL,
  size bigint NOT NULL CHECK (size >= 0),
  sha256 text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE TABLE file_pieces (
  file_id uuid NOT NULL REFERENCES files ON DELETE CASCADE,
  number integer NOT NULL,
  bytes bytea NOT NULL,
  PRIMARY KEY (file_id, number)
);
ALTER TABLE file_pieces ALTER COLUMN bytes SET STORAGE EXTERNAL;
-- Which files an item's text offers.
CREATE TABLE item_files (
  item_id text NOT NULL REFERENCES items ON DELETE CASCADE,
  file_item_id text NOT NULL REFERENCES items ON DELETE CASCADE,
  PRIMARY KEY (item_id, file_item_id)
);
CREATE INDEX ON item_files (file_item_id);

CREATE TABLE menu_entries (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  parent_id uuid REFERENCES menu_entries ON DELETE CASCADE,
  position integer NOT NULL,
  kind text NOT NULL CHECK (kind IN
    ('item', 'kind', 'category', 'tag', 'archive', 'search', 'join', 'offer', 'sign-in', 'account', 'outside', 'heading')),
  -- The id of what it leads to, or an address outside.
  target text NOT NULL DEFAULT '',
  -- Empty: the name of what it leads to.
  label text NOT NULL DEFAULT '',
  audience text NOT NULL DEFAULT 'everyone' CHECK (audience IN ('everyone', 'signed-out', 'signed-in', 'can-open')),
  created_at timestamptz NOT NULL DEFAULT now()
);
INSERT INTO menu_entries (position, kind, target) SELECT 0, 'kind', 'post' WHERE EXISTS (SELECT FROM site);
INSERT INTO menu_entries (position, kind, target)
  SELECT row_number() OVER (ORDER BY position, title), 'item', id FROM items WHERE in_menu;
INSERT INTO menu_entries (position, kind, target, label)
  SELECT 1000 + row_number() OVER (ORDER BY menu_label), 'offer', id, menu_label FROM offers WHERE menu_label <> '';
ALTER TABLE items DROP COLUMN in_menu;
ALTER TABLE offers DROP COLUMN menu_label;
