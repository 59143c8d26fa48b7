-- Why a line of a statement is ignored; beside why it matched nothing, so that ignoring it can be undone.
ALTER TABLE statement_lines ADD COLUMN ignored_because text;
UPDATE statement_lines SET ignored_because = note, note = '' WHERE is_put_aside;
ALTER TABLE statement_lines DROP COLUMN is_put_aside;
