-- What stood in the way of a checkout is a code with its values; its words are the reader's. A sentence of before stays one.
ALTER TABLE checkouts ALTER COLUMN last_problem DROP NOT NULL, ALTER COLUMN last_problem DROP DEFAULT;
ALTER TABLE checkouts ALTER COLUMN last_problem TYPE jsonb USING CASE
  WHEN last_problem = '' THEN NULL
  ELSE jsonb_build_object('code', 'gateway.said', 'values', jsonb_build_object('words', last_problem)) END;
