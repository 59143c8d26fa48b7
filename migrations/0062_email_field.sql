-- The merge field is called {email} now, as everything else is.
UPDATE mail_settings SET subject = replace(subject, '{e-mail}', '{email}'), words = replace(words, '{e-mail}', '{email}');
UPDATE letters SET subject = replace(subject, '{e-mail}', '{email}'), body = replace(body::text, '{e-mail}', '{email}')::jsonb;
