import type { Metadata } from 'next';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import type { LocalDate } from '@/core/instants';
import { transferList } from '@/billing/services/transfer-list';
import { ImportStatement } from '@/billing/ui/import-statement';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { ConfirmTransfer, UnmatchedLine } from '@/billing/ui/transfer-forms';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { CutOff } from '@/kit/cut-off';
import { Empty } from '@/kit/empty';
import { LinkButton } from '@/kit/button';
import { Table } from '@/kit/table';
import { confirmTransferAction, ignoreLineAction, refundSentAction, restoreLineAction } from '../actions';
import { Sentence } from '@/kit/sentence';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-money.bank-transfers-money') };

export default async function TransfersPage() {
  const t = await deskWords();
  const staff = await requireStaff('see money');
  const { accounts, awaited, awaitedTotal, unmatched, toSend } = await shown(
    transferList(await currentActor()),
  );
  const mayManage = staff.may('manage money');
  const day = (date: LocalDate): string => t.date(`${date}T12:00:00Z`);
  const choices = awaited.map((payment) => ({
    id: payment.id,
    words: `${payment.reference ?? ''}, ${payment.who}, ${t.money(payment.amount, payment.currency)}`,
  }));
  return (
    <>
      <MoneyTabs here="transfers" />
      {accounts.length === 0 ? (
        <div className="mt-5">
          <Empty
            title={desk('desk-money.bank-transfer-isnt-set-up')}
            action={
              <LinkButton href="/desk/money/gateways">{desk('desk-money.set-up-bank-transfer')}</LinkButton>
            }
          >
            {desk('desk-money.add-your-bank-details-under')}
          </Empty>
        </div>
      ) : (
        <div className="mt-5 grid items-start gap-8 xl:grid-cols-[1fr_28rem]">
          <div className="min-w-0">
            <h2 className="text-xl">{desk('desk-money.awaited')}</h2>
            {awaited.length === 0 ? (
              <p className="mt-2 text-muted">{desk('desk-money.no-transfers-are-due')}</p>
            ) : (
              <Table
                heads={[
                  desk('desk.reference'),
                  desk('desk.member'),
                  desk('desk.offer'),
                  desk('desk-money.due-by'),
                  desk('desk.amount'),
                  '',
                ]}
              >
                {awaited.map((payment) => (
                  <tr key={payment.id} className="border-t border-line">
                    <td className="py-2 pr-5 font-mono font-semibold">{payment.reference}</td>
                    <td className="py-2 pr-5">
                      {payment.who}
                      {payment.isJoining && (
                        <span className="block text-[0.9375rem] text-muted">
                          {desk('desk-money.joins-when-paid')}
                        </span>
                      )}
                    </td>
                    <td className="py-2 pr-5">{payment.offerName}</td>
                    <td className={payment.isLate ? 'py-2 pr-5 text-closed' : 'py-2 pr-5'}>
                      {t.date(payment.until)}
                    </td>
                    <td className="py-2 pr-5 font-semibold">{t.money(payment.amount, payment.currency)}</td>
                    <td className="py-2">
                      {mayManage && <ConfirmTransfer paymentId={payment.id} action={confirmTransferAction} />}
                    </td>
                  </tr>
                ))}
              </Table>
            )}
            <CutOff t={t} shown={awaited.length} total={awaitedTotal} which="first" />
            {toSend.length > 0 && (
              <>
                <h2 className="mt-8 text-xl">{desk('desk-money.refunds-to-send-by-bank')}</h2>
                <p className="text-muted">{desk('desk-money.these-are-in-the-books')}</p>
                <ul className="mt-2 grid gap-2">
                  {toSend.map((refund) => (
                    <li
                      key={refund.id}
                      className="figures flex flex-wrap items-center justify-between gap-3 rounded-card border border-line bg-surface px-4 py-3"
                    >
                      <span>
                        <Sentence
                          words={desk('desk-money.refund-to-send', {
                            amount: t.money(refund.amount, refund.currency),
                            name: refund.memberName,
                            date: t.date(refund.at),
                          })}
                          parts={{ b: (words) => <b className="font-semibold">{words}</b> }}
                        />
                      </span>
                      {mayManage && (
                        <ActionForm action={refundSentAction} className="flex items-center gap-3">
                          <FormMessage />
                          <input type="hidden" name="refund" value={refund.id} />
                          <SubmitButton busy={desk('desk.one-moment')} look="quiet">
                            {desk('desk-money.mark-as-sent')}
                          </SubmitButton>
                        </ActionForm>
                      )}
                    </li>
                  ))}
                </ul>
              </>
            )}
            {unmatched.length > 0 && (
              <>
                <h2 className="mt-8 text-xl">{desk('desk-money.unmatched')}</h2>
                <ul className="mt-2 grid gap-3">
                  {unmatched.map((line) => (
                    <li key={line.id} className="rounded-card border border-line bg-surface p-4">
                      <p className="figures flex flex-wrap justify-between gap-3">
                        <span>
                          <Sentence
                            words={desk('desk-money.statement-line', {
                              amount: t.money(line.amount, line.currency),
                              payer: line.payer || desk('desk-money.an-unnamed-payer'),
                              date: day(line.bookedOn),
                              words: line.words,
                            })}
                            parts={{ b: (words) => <b className="font-semibold">{words}</b> }}
                          />
                        </span>
                        <span className="text-metered">{line.note}</span>
                      </p>
                      {mayManage && (
                        <UnmatchedLine
                          lineId={line.id}
                          choices={choices}
                          confirm={confirmTransferAction}
                          ignore={ignoreLineAction}
                          restore={restoreLineAction}
                        />
                      )}
                    </li>
                  ))}
                </ul>
              </>
            )}
          </div>
          {mayManage && <ImportStatement accounts={accounts.map(({ id, label }) => ({ id, label }))} />}
        </div>
      )}
    </>
  );
}
