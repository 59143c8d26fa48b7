/** npm run create-site -- "Site name" Europe/London GBP "Owner name" owner@site.example [de-DE]: makes the site and its owner. */
import { randomBytes } from 'node:crypto';
import { config, configOrExit } from '../src/platform/config';
import { SETUP } from '../src/platform/actor';
import { setUpSite } from '../src/desk/services/set-up-site';
import { closePools } from '../src/platform/store/db';
import { plainWords } from '../src/words/desk';

configOrExit();
const [name = '', zone = '', currency = '', ownerName = '', ownerEmail = '', language] =
  process.argv.slice(2);
const ownerPassword = randomBytes(12).toString('base64url');
const made = await setUpSite(SETUP, {
  name,
  zone,
  currency,
  language,
  ownerName,
  ownerEmail,
  ownerPassword,
  senderAddress: ownerEmail,
});
await closePools();
if (!made.ok) {
  for (const [field, message] of Object.entries(plainWords.problems(made.problems)))
    console.error(`${field} ${message}`.trim());
  process.exit(1);
}
console.log(
  `The site is made. Sign in at ${config().SITE_URL}/desk as ${ownerEmail} with the password ${ownerPassword}`,
);
