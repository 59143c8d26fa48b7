import { creditLeft } from '@/core/billing/credit';
import { readBook } from '@/billing/services/lib/open-book';
import { pool } from '@/platform/store/db';
import { listAudit } from '@/platform/store/audit';
import { ALL_DOCUMENTS, listDocuments } from '@/documents/store/documents';
import { listHoldings } from '@/billing/store/holdings';
import { listAnswers } from '@/billing/store/checkouts';
import { listReadsOf } from '@/access/store/meters';
import { listChoices } from '@/mail/store/mail-choices';
import { listPurchasesOf } from '@/billing/store/purchases';
import { listPassesOf } from '@/billing/store/held-passes';
import { listItemReads } from '@/content/store/item-reads';
import { listCommentsBy } from '@/content/store/comments';
import { listMailsTo } from '@/mail/store/mails';
import { listNotes } from '@/members/store/member-notes';
import { findMember } from '@/people/store/members';
import { listOfferVersions } from '@/tiers/store/offers';
import { ALL_PAYMENTS, listPayments } from '@/billing/store/payment-lists';
import { listRefunds } from '@/billing/store/refunds';
import { listSubscriptionsOf } from '@/billing/store/subscriptions';
import { siteNow } from '@/platform/clock';
import { issueDocuments } from '@/documents/services/lib/issue-documents';
import { currentSite } from '@/platform/site';
import { methodWords } from '@/words/methods';
import { wordsOf } from '@/words/words';
import { memberUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { found } from '@/platform/result';
import type { MemberId } from '@/core/ids';

const EVERY = 100_000;

/** Everything the site knows about the member who asks, as one JSON document. Amounts in minor units, instants UTC. */
async function everythingOf(memberId: MemberId): Promise<Record<string, unknown> | null> {
  const member = await findMember(pool(), memberId);
  if (!member) return null;
  const site = await currentSite();
  const t = wordsOf(site);
  const { id, email, name, joinedAt, country, invoiceWords } = member;
  const subscriptions = await listSubscriptionsOf(pool(), id, site.mode);
  const versions = await listOfferVersions(pool(), [
    ...new Set(subscriptions.map((one) => one.offerVersionId)),
  ]);
  const { rows } = await listPayments(pool(), site.mode, { ...ALL_PAYMENTS, memberId: id, limit: EVERY });
  const refunds = await listRefunds(
    pool(),
    rows.map((payment) => payment.id),
  );
  await issueDocuments(site.mode);
  const { rows: documents } = await listDocuments(pool(), site.mode, {
    ...ALL_DOCUMENTS,
    memberId: id,
    limit: EVERY,
  });
  const subjects = [`member:${id}`, ...subscriptions.map((one) => `subscription:${one.id}`)];
  const { book } = (await readBook(pool(), site, { memberId: id, mode: site.mode })).stored;
  return {
    site: site.name,
    madeAt: siteNow(site),
    mode: site.mode,
    you: { email, name, joinedAt, country, invoiceWords },
    comments: (await listCommentsBy(pool(), id)).map(({ title, words, state, at }) => ({
      on: title,
      words,
      state,
      at,
    })),
    passes: (await listPassesOf(pool(), id)).map(({ pass, why, email: proved, since, until }) => ({
      pass,
      why,
      email: proved,
      since,
      until,
    })),
    purchases: (await listPurchasesOf(pool(), id, site.mode)).map(({ name, kind, state, at }) => ({
      name,
      kind,
      state,
      at,
    })),
    opened: (await listItemReads(pool(), id, [], EVERY)).map(({ title, firstAt, lastAt }) => ({
      title,
      firstAt,
      lastAt,
    })),
    emails: (await listChoices(pool(), id)).map(({ topic, isOn, at }) => ({ topic, isOn, at })),
    freeReads: await listReadsOf(pool(), id),
    answers: (await listAnswers(pool(), id)).map(({ label, value, at }) => ({
      question: label,
      answer: value,
      at,
    })),
    subscriptions: subscriptions.map((one) => ({
      id: one.id,
      offer: versions.find((version) => version.versionId === one.offerVersionId)?.definition,
      state: one.state,
      startedAt: one.beganAt,
      paidThrough: one.paidThrough,
      endedAt: one.endedAt,
      paidBy: one.methodLabel && methodWords(one.methodLabel, t),
    })),
    holdings: (await listHoldings(pool(), id, site.mode)).map(({ tierId, why, fromAt, untilAt }) => ({
      tier: tierId,
      why,
      from: fromAt,
      until: untilAt,
    })),
    payments: rows.map(({ at, amount, currency, state, subscriptionId, reference }) => ({
      at,
      amount,
      currency,
      state,
      subscription: subscriptionId,
      reference,
    })),
    refunds: refunds.map(({ at, amount, currency, state, reason }) => ({
      at,
      amount,
      currency,
      state,
      reason,
    })),
    documents: documents.map(({ label, kind, at, total, tax, currency, content }) => ({
      number: label,
      kind,
      at,
      total,
      tax,
      currency,
      lines: content.lines,
    })),
    notes: (await listNotes(pool(), id, true)).map(({ at, words }) => ({ at, words })),
    credit: creditLeft(book),
    mails: (await listMailsTo(pool(), id)).map(({ at, subject, state }) => ({ at, subject, state })),
    happened: (await listAudit(pool(), subjects, EVERY)).map(({ at, action }) => ({ at, action })),
  };
}

export const myData = memberUse('my-data', nothing, async ({ memberId }) =>
  found(await everythingOf(memberId)),
);
