-- Up Migration
CREATE TABLE categories (
  id text PRIMARY KEY,
  name text NOT NULL CHECK (name <> ''),
  parent_id text REFERENCES categories,
  position integer NOT NULL DEFAULT 0,
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE items (
  id text PRIMARY KEY,
  type text NOT NULL CHECK (type IN ('page', 'post')),
  -- The whole address, in normal form; kept in step with the parent's.
  path text NOT NULL UNIQUE CHECK (path LIKE '/%'),
  parent_id text REFERENCES items,
  title text NOT NULL CHECK (title <> ''),
  summary text NOT NULL DEFAULT '',
  body jsonb NOT NULL,
  author text NOT NULL DEFAULT '',
  tags text[] NOT NULL DEFAULT '{}',
  in_menu boolean NOT NULL DEFAULT false,
  position integer NOT NULL DEFAULT 0,
  published_at timestamptz,
  version integer NOT NULL DEFAULT 1,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  CHECK (parent_id <> id)
);

CREATE TABLE item_categories (
  item_id text NOT NULL REFERENCES items ON DELETE CASCADE,
  category_id text NOT NULL REFERENCES categories,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (item_id, category_id)
);
CREATE INDEX ON item_categories (category_id);

CREATE TABLE rules (
  id text PRIMARY KEY,
  name text NOT NULL CHECK (name <> ''),
  is_on boolean NOT NULL DEFAULT true,
  -- covers, except, openTo and alsoRequire in the open form of a rule.
  definition jsonb NOT NULL,
  -- Null: the site's own doorstep.
  doorstep jsonb,
  version integer NOT NULL DEFAULT 1,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now()
);
