-- A gateway that was disconnected: its keys are gone, its history stays.
ALTER TABLE gateway_accounts ADD COLUMN disconnected_at timestamptz;
UPDATE members SET name = 'Deleted member' WHERE deleted_at IS NOT NULL;
