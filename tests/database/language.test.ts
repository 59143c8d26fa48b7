import type { Asker } from '@/core/access/asker';
import { describe, expect, it } from 'vitest';
import { viewItem } from '../../src/access/services/view-item';
import { joinPage } from '../../src/checkout/services/join-page';
import { prepareCheckout } from '../../src/checkout/services/prepare-checkout';
import { refundPayment } from '../../src/billing/services/refund-payment';
import { saveItem } from '../../src/content/services/save-item';
import { generalSettings, saveGeneral } from '../../src/desk/services/general-settings';
import { listWording, reword } from '../../src/desk/services/wording';
import { myDocuments } from '../../src/documents/services/read-document';
import { myAccount } from '../../src/members/services/my-account';
import { VISITOR_ACTOR } from '../../src/platform/actor';
import { currentSite } from '../../src/platform/site';
import { wordsOf } from '../../src/words/words';
import { asMember, join, lanternMoor, rows, value } from './lantern-moor';

const moor = lanternMoor();
const GENERAL = { name: 'Lantern Moor', zone: 'Europe/London', currency: 'GBP' };
const speak = async (language: string) => value(await saveGeneral(moor.owner, { ...GENERAL, language }));
const mailsTo = (email: string) =>
  rows<{ subject: string; text_body: string }>(
    'SELECT subject, text_body FROM mails WHERE to_address = $1 ORDER BY created_at',
    [email],
  );

describe('a site in German', () => {
  it('says everything to members in it: join page, checkout, account, mails, invoices', async () => {
    await speak('de-DE');
    const checkout = value(await prepareCheckout(VISITOR_ACTOR, { offerId: 'observer-monthly', mode: '' }));
    expect(checkout.page).toMatchObject({ title: 'Observer: Mitglied werden', button: 'Beitreten' });
    expect(checkout.prepared?.sentence.replaceAll('\u00a0', ' ')).toBe(
      '14 Tage kostenlos, danach 6 £ pro Monat, bis Sie kündigen.',
    );
    const { email, memberId } = await join(moor, 'eclipse-week-once', 'works');
    const mails = await mailsTo(email);
    const welcome = mails.find(({ subject }) => subject.startsWith('Willkommen'));
    const receipt = mails.find((mail) => mail !== welcome);
    expect(welcome?.subject).toBe('Willkommen bei Lantern Moor, Someone');
    expect(welcome?.text_body).toMatch(/^Guten Tag Someone,/);
    expect(receipt?.subject.replaceAll('\u00a0', ' ')).toMatch(/^Beleg: [\d.]+,\d\d £ für Eclipse Week$/);
    const [invoice] = value(await myDocuments(asMember(memberId)));
    expect(invoice?.title).toBe('Rechnung');
    const { account } = value(await myAccount(asMember(memberId)));
    expect(account.subscriptions[0]?.sentence.replaceAll('\u00a0', ' ')).toContain('25 £ einmalig');
  });

  it('speaks at the doorstep too, but for a notice that the owner wrote', async () => {
    await speak('en-GB');
    const noticeFor = async (asker: Asker) => (await currentSite()).doorstep.meets[asker];
    const notice = (words: string) => ({ kind: 'notice', words });
    expect(await noticeFor('visitor')).toEqual(notice('The rest is for members.'));
    await speak('de-DE');
    expect(await noticeFor('visitor')).toEqual(notice('Der Rest ist für Mitglieder.'));
    expect(await noticeFor('wrong-tier')).toEqual(notice('Ihre Mitgliedschaft enthält dies nicht.'));
    await rows(`UPDATE site SET doorstep = jsonb_set(doorstep, '{meets,visitor,words}', '"Nur für uns."')`);
    await speak('en-GB');
    expect(await noticeFor('visitor')).toEqual(notice('Nur für uns.'));
    expect(await noticeFor('wrong-tier')).toEqual(notice('Your membership doesn’t include this.'));
  });

  it('has amounts typed in the Desk read as it writes them', async () => {
    const { memberId } = await join(moor, 'eclipse-week-once', 'works');
    const [payment] = value(await myAccount(asMember(memberId))).account.payments;
    const refund = (amount: string, n: number) =>
      refundPayment(moor.owner, {
        paymentId: payment?.id,
        requestId: `00000000-0000-4000-8000-00000000000${n}`,
        amount,
        reason: '',
        endsAccess: false,
        password: '',
      });
    await speak('en-GB');
    expect(await refund('4,50', 1)).toMatchObject({ problems: { amount: { code: 'amount.two-ways' } } });
    await speak('de-DE');
    expect(value(await refund('4,50', 2))).toMatchObject({ amount: 450 });
    await speak('en-GB');
  });

  it.each([
    ['language', { language: 'xx' }],
    ['zone', { zone: 'Moor/Lantern' }],
    ['currency', { currency: 'QQQ' }],
    ['name', { name: ' ' }],
    ['joinRhythm', { joinRhythm: "1'; --" }],
  ])('is refused where its %s is none', async (field, part) => {
    const made = await saveGeneral(moor.owner, { ...GENERAL, language: 'en-GB', ...part });
    expect(made).toMatchObject({ ok: false, problems: { [field]: expect.anything() as object } });
  });
});

it('the join page opens as the owner chose, where that is still offered', async () => {
  const opened = async () => value(await joinPage(VISITOR_ACTOR, '')).rhythm;
  const choose = (joinRhythm: string) =>
    saveGeneral(moor.owner, { ...GENERAL, language: 'en-GB', joinRhythm }).then(value);
  expect(await opened()).toBe('1-month');
  await choose('1-year');
  expect(await opened()).toBe('1-year');
  expect(value(await joinPage(VISITOR_ACTOR, '1-month')).rhythm).toBe('1-month');
  // A form that has no such field leaves it as it was.
  await speak('en-GB');
  expect(value(await generalSettings(moor.owner)).joinRhythm).toBe('1-year');
  await choose('2-week');
  expect(await opened()).toBe('1-month');
});

describe('a sentence in the owner’s words', () => {
  const found = async (search: string) =>
    value(await listWording(moor.owner, { search, part: '', page: 1 })).rows;

  it('is read by members, and can go back to the original', async () => {
    const [row] = await found('Pay {amount} and join');
    expect(row).toMatchObject({ key: 'checkout.pay-join', fields: ['{amount}'], own: '' });
    value(await reword(moor.owner, { key: 'checkout.pay-join', words: 'Come in for {amount}' }));
    const say = async () => wordsOf(await currentSite())('checkout.pay-join', { amount: '£6' });
    expect(await say()).toBe('Come in for £6');
    expect(value(await listWording(moor.owner, { search: '', part: 'changed', page: 1 })).total).toBe(1);
    // Another language has its own.
    await speak('de-DE');
    expect(await say()).toBe('£6 zahlen und beitreten');
    await speak('en-GB');
    value(await reword(moor.owner, { key: 'checkout.pay-join', words: '' }));
    expect(await say()).toBe('Pay £6 and join');
    expect(await rows('SELECT * FROM reworded')).toEqual([]);
  });

  it.each([
    ['a field it never had', 'checkout.pay-join', 'Pay {price}', 'words.unknown-field'],
    ['a field where there is none', 'site.join', 'Join {site}', 'words.no-fields'],
    ['a brace that stays open', 'checkout.pay-join', 'Pay {amount', 'words.unreadable'],
    ['a plural without its end', 'checkout.year', '{count, plural, one {One payment}}', 'words.unreadable'],
  ])('is refused with %s', async (_, key, words, code) => {
    expect(await reword(moor.owner, { key, words })).toMatchObject({ problems: { words: { code } } });
  });

  it('of the Desk cannot be reworded', async () => {
    expect(await reword(moor.owner, { key: 'live.members', words: 'x' })).toMatchObject({ ok: false });
    expect(await reword(moor.owner, { key: 'toString', words: 'x' })).toMatchObject({ ok: false });
  });
});

describe('the front page', () => {
  const page = { type: 'page', title: 'Welcome', publish: 'publish' };

  it('is a choice; there is one at a time, and another is named', async () => {
    expect(await saveItem(moor.owner, { ...page, isFront: true })).toMatchObject({
      problems: { isFront: { code: 'item.front-taken' } },
    });
    const old = value(await viewItem(VISITOR_ACTOR, '/'));
    if (old.kind !== 'open') throw new Error('no front page');
    const moved = {
      id: old.item.id,
      type: 'page',
      title: old.item.title,
      publish: 'publish',
      isFront: false,
    };
    expect(value(await saveItem(moor.owner, { ...moved, slug: '' })).path).toBe(
      '/the-sky-is-still-dark-here',
    );
    expect(value(await saveItem(moor.owner, { ...page, isFront: true })).path).toBe('/');
    // Saved again without a word of it, it stays where it is.
    const front = value(await viewItem(VISITOR_ACTOR, '/'));
    if (front.kind !== 'open') throw new Error('no front page');
    expect(value(await saveItem(moor.owner, { ...page, id: front.item.id })).path).toBe('/');
  });
});
