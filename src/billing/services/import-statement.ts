import { createHash } from 'node:crypto';
import { parse } from 'csv-parse/sync';
import { z } from 'zod';
import { readStatement, type StatementRow } from '@/core/bank-statement';
import { pool, transaction, type Transaction } from '@/platform/store/db';
import { findGatewayAccount, type GatewayAccount } from '@/billing/store/gateways';
import { findByReference, findPayment, type Payment } from '@/billing/store/payments';
import {
  insertLine,
  isLineKnown,
  lockLine,
  matchLine,
  noteLine,
  setLineIgnored,
} from '@/billing/store/statements';
import { type Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result, refusedWith } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { doAsks } from './lib/in-book';
import { deskWordsOf } from '@/words/desk';
import type { Words } from '@/words/speak';
import { problem, refusal, type ProblemCode } from '@/words/problems';
import { takeTransfer, type TakenTransfer } from './lib/take-transfer';
import { referencesIn } from './lib/transfer-reference';
import { staffUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { MOST_STATEMENT_BYTES } from '@/core/upload-bounds';
import { say } from '@/words/problems';
import type { Problem } from '@/core/problem';

const inputSchema = z.object({
  accountId: z.uuid(say('statement.no-account')),
  csv: z
    .union([z.string(), z.instanceof(Uint8Array).transform((bytes) => Buffer.from(bytes).toString('utf8'))])
    .pipe(z.string().min(1, say('statement.missing')).max(MOST_STATEMENT_BYTES, say('statement.too-large'))),
  /** Says what would be done, and does nothing. */
  dryRun: z.boolean().default(false),
});

export type ImportedLine = {
  line: number;
  state: 'matched' | 'unmatched' | 'known' | 'left out' | 'unreadable';
  words: string;
};

/**
 * Imports a bank statement: each line that came in is matched by reference and amount, and settles what was awaited.
 * A line is known once, however often its statement is imported.
 */
export const importStatement = staffUse('manage money')(
  'import-statement',
  inputSchema,
  async (actor, input): Promise<Result<ImportedLine[]>> => {
    const { accountId, csv, dryRun } = input;
    const account = await findGatewayAccount(pool(), accountId);
    if (account?.nature !== 'transfer') return refusedField('accountId', 'statement.no-account');
    const site = await currentSite();
    const t = deskWordsOf(site);
    const records = recordsOf(csv);
    const read = records
      ? readStatement(records, site.currency, site.language)
      : { ok: false as const, problem: problem('statement.no-csv') };
    if (!read.ok) return refusedWith(read.problem, 'csv');
    const seen = new Map<string, number>();
    const lines: ImportedLine[] = read.problems.map(({ line, problem }) => ({
      line,
      state: 'unreadable',
      words: t.problem(problem),
    }));
    for (const row of read.rows) {
      // Two payments of one day may look the same: the second of them is another line.
      const content = JSON.stringify([row.bookedOn, row.amount, row.currency, row.payer, row.words]);
      const nth = (seen.get(content) ?? 0) + 1;
      seen.set(content, nth);
      const fingerprint = createHash('sha256').update(`${content}#${nth}`).digest('hex');
      lines.push({ line: row.line, ...(await takeLine(actor, account, { row, fingerprint, dryRun }, t)) });
    }
    return done(lines.sort((a, b) => a.line - b.line));
  },
);

function recordsOf(csv: string): string[][] | null {
  const text = csv.replace(/^\uFEFF/, '');
  const head = text.split('\n', 1)[0] ?? '';
  const delimiter = [';', '\t'].find((one) => head.includes(one)) ?? ',';
  try {
    return parse(text, { delimiter, relax_column_count: true, skip_empty_lines: true });
  } catch {
    return null;
  }
}

async function takeLine(
  actor: Actor,
  account: GatewayAccount,
  { row, fingerprint, dryRun }: { row: StatementRow; fingerprint: string; dryRun: boolean },
  t: Words,
): Promise<Omit<ImportedLine, 'line'>> {
  if (row.amount <= 0) return { state: 'left out', words: 'outgoing payment' };
  if (await isLineKnown(pool(), account.id, fingerprint)) return { state: 'known', words: 'imported before' };
  const match = await findMatch(account, row, t);
  if (!dryRun) {
    const taken = await transaction(async (db) => {
      const { bookedOn, amount, currency, payer, words } = row;
      const { id: gatewayAccountId, mode } = account;
      const note = 'payment' in match ? '' : match.why;
      const line = await insertLine(db, {
        gatewayAccountId,
        mode,
        fingerprint,
        bookedOn,
        amount,
        currency,
        payer,
        words,
        note,
      });
      if (!line || !('payment' in match)) return null;
      const settled = await settleBy(db, actor, line.id, match.payment);
      if (!settled.ok) await noteLine(db, line.id, t.problem(refusal(settled.why)));
      return settled;
    });
    await follow(actor, taken);
    if (taken && !taken.ok) return { state: 'unmatched', words: t.problem(refusal(taken.why)) };
  }
  return 'payment' in match
    ? { state: 'matched', words: `${t.money(row.amount, row.currency)} with ${match.payment.reference}` }
    : { state: 'unmatched', words: match.why };
}

async function findMatch(
  account: GatewayAccount,
  row: StatementRow,
  t: Words,
): Promise<{ payment: Payment } | { why: string }> {
  for (const reference of referencesIn(row.words)) {
    const payment = await findByReference(pool(), account.id, reference);
    if (!payment) continue;
    if (payment.state === 'succeeded')
      return { why: `${reference} has been paid already; this is a second payment` };
    if (payment.amount !== row.amount || payment.currency !== row.currency)
      return {
        why: `${t.money(row.amount, row.currency)} received for ${reference}; ${t.money(payment.amount, payment.currency)} is due`,
      };
    return { payment };
  }
  return { why: 'no reference of ours in its description' };
}

/** A line pays what it matches. */
async function settleBy(
  db: Transaction,
  actor: Actor,
  lineId: string,
  payment: Payment,
): Promise<TakenTransfer> {
  const taken = await takeTransfer(db, actor, payment, `line:${lineId}`);
  if (taken.ok) await matchLine(db, lineId, payment.id);
  return taken;
}

/** Gateways are asked for what followed, once it is stored. */
async function follow(actor: Actor, taken: TakenTransfer | null): Promise<void> {
  if (taken?.ok) await doAsks(actor, await currentSite(), taken.stored, taken.asks);
}

/** Whether the caller may import a statement, checked before the upload. */
export const mayImportStatement = staffUse('manage money')('may-import-statement', nothing, async () =>
  Promise.resolve(done(null)),
);

/** Staff say that an awaited transfer came: with the line of a statement that did not match by itself, or without one. */
const confirmSchema = z.object({
  paymentId: z.uuid(say('statement.no-transfer')),
  lineId: z.uuid().optional(),
});

export const confirmTransfer = staffUse('manage money')(
  'confirm-transfer',
  confirmSchema,
  async (actor, { paymentId, lineId }): Promise<Result<null>> => {
    const taken = await transaction(async (db): Promise<TakenTransfer | Problem<ProblemCode>> => {
      const payment = await findPayment(db, paymentId);
      if (!payment?.isAwaited || payment.state === 'succeeded') return problem('statement.not-awaited');
      if (!lineId) return takeTransfer(db, actor, payment, `by-hand:${payment.id}`);
      const line = await lockLine(db, lineId);
      if (!line || line.paymentId || line.mode !== payment.mode) return problem('statement.matched');
      if (line.amount !== payment.amount || line.currency !== payment.currency)
        return problem('statement.amounts-differ', { line, awaited: payment });
      return settleBy(db, actor, lineId, payment);
    });
    if ('code' in taken) return refusedWith(taken);
    if (!taken.ok) return refusedWith(refusal(taken.why));
    await follow(actor, taken);
    return done(null);
  },
);

const ignoredSchema = z.object({
  lineId: z.uuid(),
  because: z.string().trim().min(1, say('statement.no-why')).max(300),
});

async function ignore(actor: Actor, lineId: string, because: string | null): Promise<Result<null>> {
  const site = await currentSite();
  return transaction(async (db) => {
    if (!(await setLineIgnored(db, lineId, because))) return refusedField('', 'statement.matched');
    const what = because === null ? 'statement line no longer ignored' : 'statement line ignored';
    await record(db, actor, siteNow(site), what, `line:${lineId}`, { because });
    return done(null);
  });
}

/** Takes a line that pays nothing here (or was sent back) from the list, with the reason. */
export const ignoreLine = staffUse('manage money')(
  'ignore-line',
  ignoredSchema,
  (actor, { lineId, because }) => ignore(actor, lineId, because),
);
/** Lists a line again that was ignored. */
export const restoreLine = staffUse('manage money')('restore-line', z.uuid(), (actor, lineId) =>
  ignore(actor, lineId, null),
);
