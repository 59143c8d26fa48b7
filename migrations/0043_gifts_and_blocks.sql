-- Staff can give a pass, and block an account: nobody signs in to it, and its sessions end.
ALTER TABLE held_passes DROP CONSTRAINT held_passes_why_check;
ALTER TABLE held_passes ADD CONSTRAINT held_passes_why_check CHECK (why IN ('password', 'address', 'given'));

ALTER TABLE members ADD blocked_at timestamptz;

-- Two accounts of one person become one: the other stays without a name, and leads to the one that was kept.
ALTER TABLE members ADD merged_into uuid REFERENCES members;
CREATE INDEX members_merged_into ON members (merged_into) WHERE merged_into IS NOT NULL;
