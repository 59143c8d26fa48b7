import { currentMember } from '@/app/session';
import { may } from '@/core/staff';
import { monthBounds } from '@/services/document-list';
import { exportMoney } from '@/services/export-money';
import { currentSite } from '@/services/site';
import { PAYMENT_SORTS } from '@/store/payments';
import { SUBSCRIPTION_SORTS } from '@/store/subscription-lists';
import { readListSearch } from '../query';

const MOST_ROWS = 1_000_000;
const STATES = ['trial', 'active', 'overdue', 'paused', 'cancelling', 'ended'] as const;
const KINDS = ['invoice', 'refund', 'credit'] as const;
const OUTCOMES = ['succeeded', 'declined', 'intent', 'refunded', 'disputed'] as const;

/** A list of the Money place as CSV, narrowed and ordered as it is on the screen. */
export async function GET(request: Request): Promise<Response> {
  const member = await currentMember();
  if (!member || !may(member.staffRole, 'look')) return new Response('Only for staff.', { status: 403 });
  const query = new URL(request.url).searchParams;
  const search = Object.fromEntries(query);
  const list = query.get('list');
  const bounds = monthBounds(search.month ?? '', (await currentSite()).zone) ?? { from: null, until: null };
  const mode = search.mode === 'test' ? ('test' as const) : undefined;
  const csv =
    list === 'subscriptions'
      ? await exportMoney.subscriptions(readListSearch(search, STATES, SUBSCRIPTION_SORTS, MOST_ROWS), mode)
      : list === 'ledger'
        ? await exportMoney.ledger(mode)
        : list === 'documents'
          ? await exportMoney.documents(
              {
                kind: readListSearch(search, KINDS, ['newest'], MOST_ROWS).state,
                search: search.q ?? '',
                ...bounds,
              },
              mode,
            )
          : await exportMoney.payments(
              {
                ...readListSearch(search, OUTCOMES, PAYMENT_SORTS, MOST_ROWS),
                ...bounds,
                memberId: null,
              },
              mode,
            );
  const name = ['subscriptions', 'ledger', 'documents'].find((known) => known === list) ?? 'payments';
  return new Response(csv, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${name}.csv"`,
      'cache-control': 'no-store',
    },
  });
}
