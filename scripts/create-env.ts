/** npm run create-env: writes .env from .env.example, with keys of its own. An .env that is there is left alone. */
import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

if (existsSync('.env')) {
  console.error('There is an .env already. Edit it, or move it away and run this again.');
  process.exit(1);
}
const fresh: Record<string, string> = {
  SEALING_KEY: randomBytes(32).toString('hex'),
  SIGNING_KEY: randomBytes(32).toString('hex'),
  NEXT_SERVER_ACTIONS_ENCRYPTION_KEY: randomBytes(32).toString('base64'),
};
const text = readFileSync('.env.example', 'utf8').replace(
  /^(\w+)=$/gm,
  (line, name: string) => `${name}=${fresh[name] ?? ''}`,
);
// Who can read this file can read what the site seals.
writeFileSync('.env', text, { mode: 0o600 });
console.log('Wrote .env. Look through it: DATABASE_URL and SITE_URL are yours to set.');
