import { VISITOR_ACTOR } from '../../src/platform/actor';
import { randomUUID } from 'node:crypto';
import { plainWords } from '@/words/desk';
import { parse } from 'csv-parse/sync';
import { beforeAll, describe, expect, it } from 'vitest';
import { changeDetails } from '../../src/members/services/change-details';
import { documentPdf } from '../../src/documents/services/lib/document-pdf';
import { books, memberDocuments, monthBounds } from '../../src/documents/services/lib/document-list';
import { exportMoney } from '../../src/desk/services/export-money';
import { issueDocuments } from '../../src/documents/services/lib/issue-documents';
import { submitCheckout } from '../../src/checkout/services/submit-checkout';
import { memberAccount } from '../../src/billing/services/lib/member-account';
import { paymentList } from '../../src/desk/services/lib/money-lists';
import { prepare } from '../../src/checkout/services/lib/prepare';
import { invoiceOfPayment, readDocument } from '../../src/documents/services/read-document';
import { reconcile } from '../../src/billing/services/lib/reconcile';
import { refundPayment } from '../../src/billing/services/refund-payment';
import { myData } from '../../src/members/services/my-data';
import { switchForMember } from '../../src/checkout/services/switch-for-member';
import { switchWays } from '../../src/checkout/services/switch-ways';
import { saveTax } from '../../src/documents/services/save-tax';
import { pool } from '../../src/platform/store/db';
import { ALL_DOCUMENTS, listDocuments, type StoredDocument } from '../../src/documents/store/documents';
import { findMember } from '../../src/people/store/members';
import { ALL_PAYMENTS } from '../../src/billing/store/payment-lists';
import {
  join,
  joinInput,
  lanternMoor,
  passDays,
  rows,
  asMember,
  value,
  joinNew,
  piecesOf,
} from './lantern-moor';

const moor = lanternMoor();
const ZONE = 'Europe/London';

const rates = (way: 'none' | 'included' | 'added', gb = '20') => ({
  way,
  homeCountry: 'GB',
  seller: 'Lantern Moor Observatory\nUpper Tarn',
  taxNumber: 'LM 000',
  documentPrefix: 'LM-',
  kinds: [
    {
      id: 'membership',
      name: 'Membership',
      tiers: ['observer', 'warden'],
      rates: [
        { country: 'GB', name: 'VAT', rate: gb },
        { country: 'IE', name: 'VAT', rate: '23' },
      ],
    },
    { id: 'teaching', name: 'Teaching', tiers: ['mirror-makers'], rates: [] },
  ],
});
const setRates = async (...args: Parameters<typeof rates>): Promise<void> =>
  expect(await saveTax(moor.owner, rates(...args))).toMatchObject({ ok: true });
const documentsOf = async (memberId: string): Promise<StoredDocument[]> => {
  await issueDocuments();
  return (await listDocuments(pool(), 'test', { ...ALL_DOCUMENTS, memberId })).rows.reverse();
};
const paymentsOf = async (memberId: string) =>
  (await paymentList({ ...ALL_PAYMENTS, memberId, sort: 'oldest' })).rows;

/** Numbers of each kind run from 1 on, without a gap or a double, in the order of their dates where made in one go. */
async function withoutGaps(): Promise<void> {
  const found = await rows<{ kind: string; number: number }>(
    'SELECT kind, number FROM documents ORDER BY kind, number',
  );
  for (const kind of ['invoice', 'refund', 'credit']) {
    const numbers = found.filter((one) => one.kind === kind).map((one) => one.number);
    expect(numbers).toEqual(numbers.map((_, index) => index + 1));
  }
}

describe('tax that the price holds', () => {
  beforeAll(() => setRates('included'));

  it('changes no price, and is on the invoice line by line', async () => {
    const { memberId } = await join(moor, 'warden-monthly', 'works');
    await passDays(moor, 31);
    const [invoice] = await documentsOf(memberId);
    expect(invoice).toMatchObject({
      kind: 'invoice',
      total: 2500,
      tax: 417,
      label: expect.stringMatching(/^TEST-LM-I-\d{4}$/) as string,
    });
    expect(invoice?.content).toMatchObject({
      tax: { name: 'VAT', rate: 20_000 },
      seller: { taxNumber: 'LM 000' },
      buyer: { name: 'Someone New' },
      lines: [
        { amount: 1500, tax: 250 },
        { words: 'Joining fee', amount: 1000, tax: 167 },
      ],
    });
  });

  it('goes by the member’s country, and by the kind of the tier', async () => {
    const irish = await joinInput(moor, 'observer-monthly', 'works', { country: 'IE' });
    const joined = await joinNew(irish);
    if (!joined.ok || joined.value.state !== 'done') throw new Error('not joined');
    const { memberId } = joined.value;
    expect((await findMember(pool(), memberId))?.country).toBe('IE');
    const course = await join(moor, 'mirror-makers-instalments', 'works');
    await passDays(moor, 15);
    expect((await documentsOf(memberId))[0]).toMatchObject({ total: 600, tax: 112 });
    expect((await documentsOf(course.memberId))[0]).toMatchObject({
      total: 4500,
      tax: 0,
      content: { tax: null },
    });
    // Members who move are taxed there from the next charge; documents already made stay as they are.
    const moved = await changeDetails(asMember(memberId), {
      name: 'Someone New',
      country: 'GB',
      invoiceWords: 'The Mirror Shop',
    });
    expect(moved).toMatchObject({ ok: true });
    await passDays(moor, 31);
    const both = await documentsOf(memberId);
    expect(both.map((one) => one.tax)).toEqual([112, 100]);
    expect(both.map((one) => one.content.buyer.words)).toEqual(['', 'The Mirror Shop']);
    await expect(pool().query('UPDATE documents SET total = 1')).rejects.toThrow(/never changes|append/i);
  });

  it('goes back with a refund: however many parts, it adds up to what was charged', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 15);
    const [payment] = await paymentsOf(memberId);
    for (const amount of ['2.00', '2.50', '1.50'])
      expect(
        await refundPayment(moor.owner, {
          paymentId: payment?.id,
          requestId: randomUUID(),
          amount,
          endsAccess: false,
          reason: 'between us staff',
        }),
      ).toMatchObject({ ok: true });
    const [invoice, ...refunds] = await documentsOf(memberId);
    expect(refunds.map((one) => [one.kind, one.total, one.tax])).toEqual([
      ['refund', 200, 33],
      ['refund', 250, 42],
      ['refund', 150, 25],
    ]);
    expect(refunds.every((one) => one.content.about === invoice?.label)).toBe(true);
    // Why staff did it is not the member's to read.
    expect(JSON.stringify(refunds.map((one) => one.content))).not.toContain('between us');
  });

  it('a switch has a document of the credit, and an invoice that the credit pays in part', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 20);
    const prepared = await prepare('warden-monthly', await findMember(pool(), memberId));
    const input = {
      ...(await joinInput(moor, 'warden-monthly', null)),
      quoteId: prepared?.action.kind === 'switch' ? prepared.action.quoteId : '',
      keepCard: true,
    };
    expect(await submitCheckout(asMember(memberId), input)).toMatchObject({ ok: true });
    const documents = await documentsOf(memberId);
    const credit = documents.find((one) => one.kind === 'credit');
    const second = documents.filter((one) => one.kind === 'invoice').at(-1);
    expect(documents.map((one) => one.kind).sort()).toEqual(['credit', 'invoice', 'invoice']);
    expect(second).toMatchObject({ total: 1500, tax: 250 });
    expect(second?.content.settled.map((part) => part.amount)).toEqual([
      1500 - (credit?.total ?? 0),
      credit?.total,
    ]);
    expect(credit?.tax).toBe(Math.floor(((credit?.total ?? 0) * 100 * 2 + 600) / 1200));
  });
});

describe('tax on top', () => {
  beforeAll(() => setRates('added'));

  it('is quoted, charged and invoiced alike, and stays what it was when a rate changes', async () => {
    const shown = await prepare('observer-monthly', undefined, { country: 'GB' });
    expect(shown?.sentence).toContain('£7.20');
    expect(shown?.quote.charges[0]?.amount).toBe(720);
    const wrong = await joinInput(moor, 'observer-monthly', 'works');
    expect(await joinNew(wrong)).toMatchObject({
      ok: false,
      problems: { '': { code: 'checkout.price-changed' } },
    });
    const input = await joinInput(moor, 'observer-monthly', 'works', { addedTax: 20_000 });
    const joined = await joinNew(input);
    if (!joined.ok || joined.value.state !== 'done') throw new Error(JSON.stringify(joined));
    const { memberId } = joined.value;
    await passDays(moor, 15);
    expect((await paymentsOf(memberId)).map((one) => one.amount)).toEqual([720]);
    await setRates('added', '25');
    const account = await memberAccount({ id: memberId }, plainWords);
    expect(account.subscriptions[0]?.next?.amount).toBe(720);
    expect(account.subscriptions[0]?.sentence).toContain('£7.20');
    await passDays(moor, 31);
    const documents = await documentsOf(memberId);
    expect(documents.map((one) => [one.total, one.tax])).toEqual([
      [720, 120],
      [720, 144],
    ]);
    await setRates('added', '20');
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [] });
  });
});

describe('a switch by staff', () => {
  it('is charged with the tax on top, as it was quoted', async () => {
    await setRates('added');
    const input = await joinInput(moor, 'observer-monthly', 'works', { addedTax: 20_000 });
    const joined = await joinNew(input);
    if (!joined.ok || joined.value.state !== 'done') throw new Error(JSON.stringify(joined));
    const { memberId } = joined.value;
    await passDays(moor, 20);
    const [subscription] = (await memberAccount({ id: memberId }, plainWords)).subscriptions;
    const found = value(
      await switchWays(moor.owner, { memberId, subscriptionId: subscription?.subscription.id }),
    );
    const way = found.ways.find((one) => one.offer.id === 'warden-monthly');
    expect(way?.figures?.first.amount).toBe(1800);
    const asked = { quoteId: way?.quoteId, requestId: randomUUID() };
    expect(await switchForMember(moor.owner, asked)).toMatchObject({ ok: true });
    expect((await paymentsOf(memberId)).at(-1)?.amount).toBe(1800 - (way?.figures?.fresh ?? 0));
    expect(value(await myData(asMember(memberId))).documents).toHaveLength(3);
  });
});

describe('documents', () => {
  beforeAll(() => setRates('included'));

  it('are numbered without gaps, however many make them at once', async () => {
    await Promise.all([1, 2, 3].map(() => join(moor, 'eclipse-week-once', 'works')));
    await Promise.all([1, 2, 3, 4].map(() => issueDocuments()));
    await withoutGaps();
    const [{ unmade } = { unmade: -1 }] = await rows<{ unmade: number }>(
      'SELECT count(*)::int AS unmade FROM charges c WHERE paid_at IS NOT NULL AND amount > 0 AND (SELECT count(*) FROM documents WHERE charge_id = c.id AND kind = $1) <> 1',
      ['invoice'],
    );
    expect(unmade).toBe(0);
  });

  it('are read by their member and by staff, and by nobody else', async () => {
    const [mine, other] = [
      await join(moor, 'eclipse-week-once', 'works'),
      await join(moor, 'gazer-free', null),
    ];
    const [payment] = await paymentsOf(mine.memberId);
    const id = value(await invoiceOfPayment(asMember(mine.memberId), payment?.id));
    const sheet = value(await readDocument(asMember(mine.memberId), id));
    expect(sheet.totals.at(-1)).toMatchObject({ amount: '£25.00' });
    expect(await readDocument(moor.owner, id)).toMatchObject({ ok: true });
    const missing = { ok: false, code: 'missing' };
    expect(await readDocument(asMember(other.memberId), id)).toMatchObject(missing);
    expect(await invoiceOfPayment(asMember(other.memberId), payment?.id)).toMatchObject(missing);
    expect(await readDocument(VISITOR_ACTOR, id)).toMatchObject({ ok: false, code: 'sign-in' });
    expect(await readDocument(asMember(mine.memberId), 'nonsense')).toMatchObject({ code: 'invalid' });
    expect(await memberDocuments(pool(), 'test', mine.memberId, plainWords)).toHaveLength(1);
    const pdf = await documentPdf(sheet);
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    expect(pdf.byteLength).toBeGreaterThan(5_000);
  });

  it('sums by month are those of the lists and of the exports', async () => {
    const { months } = await books('', { kind: '', search: '', offset: 0, limit: 1 });
    expect(months.length).toBeGreaterThan(2);
    const csv: Record<string, string>[] = parse(
      (await piecesOf(value(await exportMoney(moor.owner, { list: 'documents' })).lines)).join(''),
      { columns: true },
    );
    const minor = (text: string | undefined): number => Math.round(Number(text) * 100);
    for (const sums of months) {
      const bounds = monthBounds(sums.month, ZONE)!;
      const { rows: payments } = await paymentList({
        ...ALL_PAYMENTS,
        ...bounds,
        state: 'succeeded',
        limit: 10_000,
      });
      expect([payments.length, payments.reduce((sum, one) => sum + one.amount, 0)]).toEqual([
        sums.payments,
        sums.received,
      ]);
      const { rows: documents } = await listDocuments(pool(), 'test', {
        ...ALL_DOCUMENTS,
        ...bounds,
        limit: 10_000,
      });
      const total = (kind: string): number =>
        documents.filter((one) => one.kind === kind).reduce((sum, one) => sum + one.total, 0);
      expect([total('invoice'), total('refund'), total('credit')]).toEqual([
        sums.invoiced,
        sums.givenBack,
        sums.credited,
      ]);
      const lines = csv.filter((line) => line.date?.startsWith(sums.month));
      expect(lines.reduce((sum, line) => sum + minor(line.tax), 0)).toBe(sums.tax);
    }
    // All in all: what was invoiced was paid with money or with credit that was spent.
    const [{ spent } = { spent: 0n }] = await rows<{ spent: bigint }>(
      'SELECT coalesce(sum(amount), 0)::bigint AS spent FROM credit_uses',
    );
    const all = (key: 'invoiced' | 'received'): number => months.reduce((sum, one) => sum + one[key], 0);
    expect(all('invoiced')).toBe(all('received') + Number(spent));
  });
});

describe('the settings', () => {
  it('are the owner’s, and refuse what cannot be', async () => {
    expect(await saveTax({ ...moor.owner, staffRole: 'editor' }, rates('none'))).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
    const bad = { ...rates('included', 'much'), homeCountry: '' };
    expect(await saveTax(moor.owner, bad)).toMatchObject({
      ok: false,
      problems: { 'kinds.0.rates.0.rate': { code: 'tax.rate' } },
    });
    expect(await saveTax(moor.owner, { ...rates('included'), homeCountry: '' })).toMatchObject({
      ok: false,
      problems: { homeCountry: { code: expect.any(String) as string } },
    });
    const twice = rates('included');
    twice.kinds[0]!.rates[1]!.country = 'GB';
    expect(await saveTax(moor.owner, twice)).toMatchObject({
      ok: false,
      problems: { 'kinds.0.rates.1.country': { code: expect.any(String) as string } },
    });
  });
});
