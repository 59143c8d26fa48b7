import { addLength, startOfDate } from '@/core/calendar';
import { type Instant, firstOf, isLocalMonth } from '@/core/instants';
import { pool, type Db } from '@/platform/store/db';
import {
  ALL_DOCUMENTS,
  listDocuments,
  sumMonths,
  type DocumentFilter,
  type MonthSums,
  type StoredDocument,
} from '@/documents/store/documents';
import type { Mode } from '@/platform/store/site';
import { issueDocuments } from './issue-documents';
import { currentSite, inMode } from '@/platform/site';
import type { MemberId } from '@/core/ids';
import type { Words } from '@/words/speak';

const toRow = (t: Words) => (document: StoredDocument) => ({
  id: document.id,
  title: t(`document.${document.kind}`),
  label: document.label,
  date: t.date(document.at),
  words: document.content.lines[0]?.words ?? '',
  amount: `${document.kind === 'refund' ? '−' : ''}${t.money(document.total, document.currency)}`,
});

const EVERY = 100_000;
export const DOCUMENT_KINDS = ['invoice', 'refund', 'credit'] as const;

/** A member's documents, newest first, as far as they have been made. */
export async function memberDocuments(db: Db, mode: Mode, memberId: MemberId, t: Words, limit = EVERY) {
  const { rows } = await listDocuments(db, mode, { ...ALL_DOCUMENTS, memberId, limit });
  return rows.map(toRow(t));
}

/** The bounds of a local month written "2026-11"; null where it is none. */
export function monthBounds(month: string, zone: string): { from: Instant; until: Instant } | null {
  if (!isLocalMonth(month)) return null;
  const from = startOfDate(firstOf(month), zone);
  return { from, until: addLength(from, { n: 1, unit: 'month' }, zone) };
}

/** What each month came to, and the documents that fit a filter: the sums are those of the lists. */
export async function books(
  month: string,
  filter: Pick<DocumentFilter, 'kind' | 'search' | 'offset' | 'limit'>,
  mode?: Mode,
): Promise<{
  months: MonthSums[];
  rows: (StoredDocument & { buyer: string })[];
  total: number;
  zone: string;
}> {
  const own = await currentSite();
  const site = inMode(own, mode ?? own.mode);
  await issueDocuments(site.mode);
  const bounds = monthBounds(month, site.zone);
  const { rows, total } = await listDocuments(pool(), site.mode, {
    ...ALL_DOCUMENTS,
    ...filter,
    from: bounds?.from ?? null,
    until: bounds?.until ?? null,
  });
  return {
    months: await sumMonths(pool(), site.mode, site.zone),
    rows: rows.map((row) => ({ ...row, buyer: row.content.buyer.name })),
    total,
    zone: site.zone,
  };
}
