-- From when the rehearsal clock was last moved, by itself: what happened on the way is told.
ALTER TABLE site ADD COLUMN clock_moved_from timestamptz;
