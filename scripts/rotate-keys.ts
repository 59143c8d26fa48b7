/** Seals everything again under SEALING_KEY: npm run rotate-keys, after the key was changed and the old one put in SEALING_KEYS_OLD. */
import { configOrExit } from '../src/platform/config';
import { SETUP } from '../src/platform/actor';
import { closePools } from '../src/platform/store/db';
import { rotateKeys } from '../src/desk/services/rotate-keys';
import { plainWords } from '../src/words/desk';

configOrExit();
const rotated = await rotateKeys(SETUP);
await closePools();
if (!rotated.ok) {
  console.error(Object.values(plainWords.problems(rotated.problems)).join('\n'));
  process.exit(1);
}
for (const [place, { resealed, all }] of Object.entries(rotated.value))
  console.log(`${resealed} of ${all} ${place} sealed again.`);
console.log('Everything is sealed under SEALING_KEY. SEALING_KEYS_OLD can be emptied.');
