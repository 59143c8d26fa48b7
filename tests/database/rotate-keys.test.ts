import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { expect, it } from 'vitest';
import { seal, unseal } from '../../src/platform/seal';
import { pool } from '../../src/platform/store/db';
import { askForCode } from '../../src/people/services/sign-in';
import { lanternMoor, rows, value, visitorWith } from './lantern-moor';
import { environment } from '../lib/environment';

const moor = lanternMoor();
const sealedKeys = () =>
  rows<{ sealed: string }>('SELECT secret_key_sealed AS sealed FROM gateway_accounts ORDER BY id');
const sealedMails = () => rows<{ sealed: string }>('SELECT sealed FROM mails WHERE sealed IS NOT NULL');

it('everything that is sealed is sealed again under the new key, all or nothing, and as often as one likes', async () => {
  value(await askForCode(visitorWith(), { email: 'ines@moor.example' }));
  await pool().query('UPDATE gateway_accounts SET webhook_secret_sealed = $1', [seal('whsec_first')]);
  const secrets = (await sealedKeys()).map(({ sealed }) => unseal(sealed));
  const [key, old] = ['cd'.repeat(32), 'ab'.repeat(32)];
  const rotate = async (keys: Record<string, string>): Promise<string> => {
    const env = { ...process.env, ...environment(moor), ...keys };
    const { stdout } = await promisify(execFile)(
      process.execPath,
      ['--import', 'tsx', 'scripts/rotate-keys.ts'],
      { env },
    );
    return stdout;
  };
  // Without the old key nothing can be opened, and nothing is changed.
  const before = [await sealedKeys(), await sealedMails()];
  await expect(rotate({ SEALING_KEY: key })).rejects.toThrow(/neither SEALING_KEY nor among/);
  expect([await sealedKeys(), await sealedMails()]).toEqual(before);

  const said = await rotate({ SEALING_KEY: key, SEALING_KEYS_OLD: old });
  expect(said).toContain('1 of 1 gateway secret keys sealed again.');
  expect(said).toContain('1 of 1 webhook secrets sealed again.');
  expect(said).toContain('1 of 1 unsent emails sealed again.');
  // The earlier key opens none of it.
  for (const { sealed } of [...(await sealedKeys()), ...(await sealedMails())])
    expect(() => unseal(sealed)).toThrow(/neither SEALING_KEY nor among/);
  expect(await rotate({ SEALING_KEY: key })).toContain('0 of 1 gateway secret keys');
  // And back again, which shows that the texts are the same.
  await rotate({ SEALING_KEY: old, SEALING_KEYS_OLD: key });
  expect((await sealedKeys()).map(({ sealed }) => unseal(sealed))).toEqual(secrets);
});
