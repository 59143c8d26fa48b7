import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { gatewayMessages } from '@/billing/services/gateway-list';
import { StateChips } from '@/kit/list-bar';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { ProcessAgain } from '@/billing/ui/process-again';
import { CutOff } from '@/kit/cut-off';
import { Empty } from '@/kit/empty';
import { LifeMark } from '@/kit/state-mark';
import { Table } from '@/kit/table';
import { processAgainAction } from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-money.messages-money') };

const STATES = ['new', 'done', 'ignored', 'refused'] as const;

export default async function MessagesPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  const staff = await requireStaff('see money');
  const wanted = (await searchOf(searchParams)).state;
  const state = STATES.find((known) => known === wanted) ?? '';
  const { rows, total } = await shown(gatewayMessages(await currentActor(), state));
  const mayManage = staff.may('manage money');
  return (
    <>
      <MoneyTabs here="messages" />
      <p className="mt-4 max-w-prose text-muted">{desk('desk-money.what-gateways-have-told-the')}</p>
      <StateChips
        label={desk('desk.state')}
        chips={['' as const, ...STATES].map((option) => ({
          href: option ? `/desk/money/messages?state=${option}` : '/desk/money/messages',
          isHere: state === option,
          mark: option === '' ? desk('desk.all') : <LifeMark t={t} state={`message-${option}`} />,
        }))}
      />
      {rows.length === 0 ? (
        <div className="mt-5">
          <Empty title={desk('desk-money.no-messages-here')}>
            {desk('desk-money.messages-from-your-gateways-appear-here')}
          </Empty>
        </div>
      ) : (
        <Table
          heads={[
            desk('desk.when'),
            desk('desk-money.from'),
            desk('desk-money.message'),
            desk('desk.state'),
            desk('desk-money.result'),
            '',
          ]}
        >
          {rows.map((row) => (
            <tr key={row.id} className="border-t border-line align-top">
              <td className="py-2 pr-5 whitespace-nowrap">{t.dateTime(row.receivedAt)}</td>
              <td className="py-2 pr-5">{row.label}</td>
              <td className="py-2 pr-5">
                <details>
                  <summary className="w-fit list-none font-semibold text-spruce underline">
                    {row.payload.type ?? 'unread'}
                  </summary>
                  <pre className="mt-1 max-w-96 relative overflow-x-auto rounded-md bg-sunken p-2 text-sm">
                    {JSON.stringify({ id: row.messageId, ...row.payload }, null, 2)}
                  </pre>
                </details>
              </td>
              <td className="py-2 pr-5">
                <LifeMark t={t} state={`message-${row.state}`} />
                {row.attempts > 1 && (
                  <span className="block text-sm text-muted">
                    {desk('desk-money.looks', { attempts: row.attempts })}
                  </span>
                )}
              </td>
              <td className="py-2 pr-5 text-[0.9375rem]">{row.result}</td>
              <td className="py-2">
                {mayManage && row.state !== 'refused' && (
                  <ProcessAgain id={row.id} action={processAgainAction} />
                )}
              </td>
            </tr>
          ))}
        </Table>
      )}
      <CutOff t={t} shown={rows.length} total={total} which="newest" />
    </>
  );
}
