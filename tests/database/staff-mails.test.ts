import { beforeEach, expect, it } from 'vitest';
import { cancelSubscription } from '../../src/billing/services/cancel-subscription';
import { deleteAccount } from '../../src/members/services/delete-account';
import { writeSummaries } from '../../src/desk/services/write-summaries';
import { saveGeneral } from '../../src/desk/services/general-settings';
import { myStaffMails, saveMyStaffMails } from '../../src/people/services/staff-mails';
import { MEMBER_PASSWORD, OWNER } from '../../scripts/lib/load-demo';
import { WORKER } from '../../src/platform/actor';
import {
  asMember,
  connectOthers,
  join,
  joinInput,
  joinNew,
  lanternMoor,
  passDays,
  rows,
  value,
} from './lantern-moor';

const moor = lanternMoor();
const choose = (...kinds: string[]) => saveMyStaffMails(moor.owner, { kinds }).then(value);
const subjects = async () =>
  (
    await rows<{ subject: string }>(
      `SELECT subject FROM mails WHERE template = 'staff' AND to_address = $1 ORDER BY created_at, id`,
      [OWNER.email],
    )
  ).map(({ subject }) => subject);
beforeEach(() => rows('DELETE FROM mails'));

it('staff hear of what they chose, and of nothing else', async () => {
  await choose('joined', 'left');
  expect(value(await myStaffMails(moor.owner)).sort()).toEqual(['joined', 'left']);
  const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
  expect(await subjects()).toEqual(['Someone New joined Observer']);
  value(await cancelSubscription(asMember(memberId), subscription.id));
  expect(await subjects()).toEqual(['Someone New joined Observer', 'Someone New is leaving Observer']);
  await choose();
  await join(moor, 'observer-monthly', 'works');
  expect(await subjects()).toHaveLength(2);
});

it('of failed payments and of transfers, in English on a German site, money as it writes it', async () => {
  await choose('failed', 'transfer');
  value(
    await saveGeneral(moor.owner, {
      name: 'Lantern Moor',
      language: 'de-DE',
      zone: 'Europe/London',
      currency: 'GBP',
    }),
  );
  await join(moor, 'observer-monthly', 'fails-second');
  await passDays(moor, 50);
  expect(await subjects()).toContain('A payment by Someone New for Observer failed');
  const { bank } = await connectOthers(moor);
  const input = await joinInput(moor, 'eclipse-week-once', null, { accountId: bank });
  value(await joinNew(input));
  expect((await subjects()).map((subject) => subject.replaceAll('\u00a0', ' '))).toContain(
    'A bank transfer of 25,00 £ is due from Someone New',
  );
  value(
    await saveGeneral(moor.owner, {
      name: 'Lantern Moor',
      language: 'en-GB',
      zone: 'Europe/London',
      currency: 'GBP',
    }),
  );
});

it('and once a week of all that happened in it', async () => {
  await choose('weekly');
  await join(moor, 'gazer-free', null);
  await passDays(moor, 7);
  expect(value(await writeSummaries(WORKER))).toBe(1);
  expect(value(await writeSummaries(WORKER))).toBe(0);
  const [mail] = await rows<{ text_body: string; subject: string }>(
    `SELECT * FROM mails WHERE template = 'staff'`,
  );
  expect(mail?.subject).toMatch(/^The week from Mon .* at Lantern Moor$/);
  expect(mail?.text_body).toContain('One member joined.');
  expect(mail?.text_body).toContain('No payment was disputed.');
});

it('what was written about someone is forgotten with their account', async () => {
  await choose('joined');
  const { memberId, email } = await join(moor, 'gazer-free', null);
  expect(JSON.stringify(await rows('SELECT * FROM mails'))).toContain(email);
  value(await deleteAccount(asMember(memberId), { password: MEMBER_PASSWORD, isSure: true }));
  expect(JSON.stringify(await rows('SELECT subject, text_body, html_body FROM mails'))).not.toContain(email);
});
