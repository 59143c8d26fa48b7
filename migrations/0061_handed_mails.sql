-- When a mail of a letter to many was handed to the mail server, whose answer is not known yet.
ALTER TABLE mails ADD COLUMN handed_at timestamptz;
