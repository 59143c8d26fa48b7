import { myAccount } from '../../src/members/services/my-account';
import { askForCode } from '../../src/people/services/sign-in';
import { plainWords } from '@/words/desk';
import { describe, expect, it } from 'vitest';
import { WORKER, type Actor } from '../../src/platform/actor';
import { accountSections, memberAccount } from '../../src/billing/services/lib/member-account';
import { mailLog, loggedMail } from '../../src/mail/services/mail-log';
import { mailPreview } from '../../src/members/services/mail-preview';
import { addNote, removeNote } from '../../src/members/services/member-notes';
import { MAILS } from '../../src/mail/catalogue';
import { saveAccountSettings } from '../../src/members/services/save-account-settings';
import { saveDunning } from '../../src/billing/services/save-dunning';
import { saveMail, saveSender, sendMailAgain } from '../../src/mail/services/save-mail';
import { currentSite } from '../../src/platform/site';
import { tryMail } from '../../src/members/services/try-mail';
import { writeReminders } from '../../src/billing/services/write-reminders';
import { join, lanternMoor, passDays, rows, value, asMember, mailedTo, visitorWith } from './lantern-moor';

const moor = lanternMoor();
const mailsTo = (email: string) =>
  rows<{ template: string; subject: string; text_body: string; at: string; id: string }>(
    'SELECT template, subject, text_body, at, id FROM mails WHERE to_address = $1 ORDER BY at, created_at',
    [email],
  );
const setting = (part: object) => ({ template: 'receipt', isOn: true, subject: '', words: '', ...part });

describe('the owner’s words', () => {
  it('are in the mail, with their fields filled in; a field nobody knows is refused', async () => {
    expect(await saveMail(moor.owner, setting({ words: 'Dear {frist name}' }))).toMatchObject({
      ok: false,
      problems: { words: { code: 'mail.unknown-field', values: { field: '{frist name}' } } },
    });
    const words = 'Thank you, {first name}: {amount} for {tier}.';
    expect(await saveMail(moor.owner, setting({ subject: 'Received on {date}', words }))).toMatchObject({
      ok: true,
    });
    const { email, memberId } = await join(moor, 'eclipse-week-once', 'works');
    const receipt = (await mailsTo(email)).find((mail) => mail.template === 'receipt');
    expect(receipt?.subject).toMatch(/^Received on \w+ \d+ \w+ \d{4}$/);
    expect(receipt?.text_body).toContain('Thank you, Someone: £25.00 for Eclipse Week.');
    const { preview } = value(await mailPreview(moor.owner, { template: 'receipt', memberId }));
    expect(preview?.fields).toMatchObject({
      'first name': 'Someone',
      tier: 'Eclipse Week',
      amount: '£25.00',
    });
    for (const kind of MAILS)
      expect(
        value(await mailPreview(moor.owner, { template: kind.template, memberId })).preview,
        kind.template,
      ).not.toBeNull();
  });

  it('a mail that is off is not sent; one that something hangs on cannot be off', async () => {
    expect(await saveMail(moor.owner, setting({ isOn: false }))).toMatchObject({ ok: true });
    const { email } = await join(moor, 'eclipse-week-once', 'works');
    expect((await mailsTo(email)).map((mail) => mail.template)).toEqual(['welcome']);
    expect(await saveMail(moor.owner, setting({ template: 'code', isOn: false }))).toMatchObject({
      ok: false,
    });
    expect(await saveMail(moor.owner, setting({ isOn: true }))).toMatchObject({ ok: true });
    expect(await saveMail({ ...moor.owner, staffRole: 'helper' }, setting({}))).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
  });

  it('go to the owner alone when tried', async () => {
    const { memberId, email } = await join(moor, 'gazer-free', null);
    const before = (await mailsTo(email)).length;
    expect(await tryMail(moor.owner, { template: 'welcome', memberId: memberId })).toMatchObject({
      ok: true,
    });
    expect(await mailsTo(email)).toHaveLength(before);
    expect((await mailsTo('ines@moor.example')).at(-1)?.text_body).toContain('Hello Someone,');
  });

  it('come from whom the owner says', async () => {
    const bad = await saveSender(moor.owner, { senderName: 'A <b>', senderAddress: 'nobody' });
    expect(bad).toMatchObject({
      ok: false,
      problems: {
        senderName: { code: expect.any(String) as string },
        senderAddress: { code: expect.any(String) as string },
      },
    });
    expect(
      await saveSender(moor.owner, { senderName: 'The dome', senderAddress: 'dome@moor.example' }),
    ).toMatchObject({ ok: true });
    expect(await currentSite()).toMatchObject({ senderName: 'The dome' });
  });
});

describe('the log', () => {
  it('shows what was sent, and never secrets that grant access', async () => {
    const { email } = await join(moor, 'gazer-free', null);
    value(await askForCode(visitorWith(), { email, to: '/account' }));
    const { code, link } = await mailedTo(email);
    expect([code, link].every(Boolean)).toBe(true);
    const { rows: lines, total } = value(await mailLog(moor.owner, { search: email }));
    expect(total).toBe(2);
    expect(lines.find((line) => line.template === 'code')).toBeDefined();
    expect(JSON.stringify(lines)).not.toContain(link);
    // Nor is any of it in the table in plain text.
    const [stored] = await rows<{ all: string }>(
      `SELECT m::text AS all FROM mails m WHERE template = 'code'`,
    );
    expect(stored?.all).not.toContain(link);
    expect(stored?.all).not.toContain(code);
    const mail = lines.find((line) => line.template === 'code')!;
    expect(JSON.stringify(value(await loggedMail(moor.owner, mail.id)))).not.toContain(code);
    expect(await mailLog({ kind: 'member', memberId: null, staffRole: null }, {})).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
  });

  it('a mail that was given up is sent again when asked', async () => {
    const { email } = await join(moor, 'gazer-free', null);
    const [mail] = await mailsTo(email);
    expect(await sendMailAgain(moor.owner, mail?.id ?? '')).toMatchObject({ ok: false });
    await rows(`UPDATE mails SET state = 'failed', attempts = 7 WHERE id = $1`, [mail?.id]);
    expect(await sendMailAgain(moor.owner, mail?.id ?? '')).toMatchObject({ ok: true });
    expect(await rows('SELECT state, attempts FROM mails WHERE id = $1', [mail?.id])).toEqual([
      { state: 'queued', attempts: 0 },
    ]);
  });
});

describe('the account', () => {
  it('has its sections as the owner arranged them, for all and for a tier', async () => {
    const gazer = await join(moor, 'gazer-free', null);
    const watcher = await join(moor, 'eclipse-week-once', 'works');
    const sectionsOf = async (id: string) => accountSections(await memberAccount({ id }, plainWords));
    const sections = [
      { id: 'receipts', isOn: true },
      { id: 'payments', isOn: false },
    ];
    const tiers = {
      'eclipse-week': [
        { id: 'payments', isOn: true },
        { id: 'receipts', isOn: false },
      ],
    };
    expect(await saveAccountSettings(moor.owner, { sections, mayDelete: false, tiers })).toMatchObject({
      ok: true,
    });
    expect(await sectionsOf(gazer.memberId)).toEqual(['receipts', 'notes', 'held', 'words']);
    expect(await sectionsOf(watcher.memberId)).toEqual(['payments', 'notes', 'held', 'words']);
    expect(
      await saveAccountSettings(moor.owner, { sections: [{ id: 'rubbish', isOn: true }], mayDelete: true }),
    ).toMatchObject({ ok: false });
  });

  it('shows the notes that were left for the member, and no others', async () => {
    const { memberId } = await join(moor, 'gazer-free', null);
    const helper: Actor = { kind: 'staff', memberId: moor.owner.memberId, staffRole: 'helper' };
    const note = { memberId, words: 'Bring your own chair.', isShown: true };
    expect(await addNote(helper, note)).toMatchObject({ ok: true });
    expect(await addNote(helper, { ...note, words: 'Talks a lot.', isShown: false })).toMatchObject({
      ok: true,
    });
    expect(await addNote(helper, { ...note, words: ' ' })).toMatchObject({ ok: false });
    expect(await addNote({ ...helper, staffRole: 'viewer' }, note)).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
    const shown = value(await myAccount(asMember(memberId))).notes;
    expect(shown.map((one) => one.words)).toEqual(['Bring your own chair.']);
    expect(await removeNote(helper, { memberId: memberId, id: shown[0]?.id ?? '' })).toMatchObject({
      ok: true,
    });
    expect(await removeNote(helper, { memberId: memberId, id: shown[0]?.id ?? '' })).toMatchObject({
      ok: false,
    });
  });
});

describe('dunning', () => {
  it('is the owner’s to set, and counts for the next failure', async () => {
    for (const retryDays of ['', '3, 1', 'soon', '0', '100'])
      expect(await saveDunning(moor.owner, { retryDays, graceDays: '5' }), retryDays).toMatchObject({
        ok: false,
      });
    expect(await saveDunning(moor.owner, { retryDays: '2 9', graceDays: '3' })).toMatchObject({ ok: true });
    const { memberId } = await join(moor, 'observer-monthly', 'fails-second');
    await passDays(moor, 15);
    await passDays(moor, 30);
    const failures = () =>
      rows(
        `SELECT s.state, (SELECT count(*)::int FROM payments p WHERE p.charge_id = s.unpaid_charge_id AND p.state = 'declined') AS failures
         FROM subscriptions s WHERE s.member_id = $1`,
        [memberId],
      );
    expect(await failures()).toEqual([{ state: 'overdue', failures: 1 }]);
    await passDays(moor, 10);
    expect(await failures()).toEqual([{ state: 'ended', failures: 3 }]);
  });
});

describe('reminders', () => {
  it('come three days before the first charge, once, also where the clock jumps over that day', async () => {
    const slow = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 10);
    expect(value(await writeReminders(WORKER))).toBe(0);
    await passDays(moor, 1);
    expect(value(await writeReminders(WORKER))).toBe(1);
    expect(value(await writeReminders(WORKER))).toBe(0);
    const jumped = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 40);
    for (const { email } of [slow, jumped]) {
      const mails = await mailsTo(email);
      expect(mails.map((mail) => mail.template).filter((one) => one === 'trial-ends')).toHaveLength(1);
      const [reminder, receipt] = ['trial-ends', 'receipt'].map((name) =>
        mails.find((mail) => mail.template === name),
      );
      expect(reminder?.text_body).toContain('£6.00');
      expect(Date.parse(receipt?.at ?? '') - Date.parse(reminder?.at ?? '')).toBeGreaterThan(
        2.5 * 86_400_000,
      );
    }
  });

  it('come two weeks before a yearly charge', async () => {
    const { email } = await join(moor, 'observer-yearly', 'works');
    await passDays(moor, 15);
    // Two days more than a year less two weeks: a leap day or a change of the clocks may lie between.
    await passDays(moor, 353);
    expect(value(await writeReminders(WORKER))).toBeGreaterThan(0);
    await passDays(moor, 20);
    const mails = (await mailsTo(email)).map((mail) => mail.template);
    expect(mails).toEqual(['welcome', 'trial-ends', 'receipt', 'renewal-soon', 'receipt']);
  });

  it('announce a month ahead that a card expires, once', async () => {
    const { email, subscription } = await join(moor, 'observer-monthly', 'works');
    expect(subscription.methodExpires).toMatch(/^\d{4}-09$/);
    expect((await mailsTo(email)).map((mail) => mail.template)).not.toContain('card-expires');
    const now = new Date(Date.now() + (await currentSite()).clockAheadMs).toISOString().slice(0, 7);
    await rows('UPDATE subscriptions SET method_expires = $2 WHERE id = $1', [subscription.id, now]);
    value(await writeReminders(WORKER));
    value(await writeReminders(WORKER));
    const told = (await mailsTo(email)).filter((mail) => mail.template === 'card-expires');
    expect(told).toHaveLength(1);
    expect(told[0]?.text_body).toContain(`/account/pay/${subscription.id}`);
  });
});
