import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { endOfDate } from '@/core/calendar';
import { codesPlace } from '@/desk/services/codes-place';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { LinkButton } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { Table } from '@/kit/table';
import { codeGist } from '@/tiers/ui/code-gist';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-codes.codes') };

export default async function CodesPage() {
  const t = await deskWords();
  const staff = await requireStaff('set tiers', 'see money');
  const { codes, tiers, passes } = await shown(codesPlace(await currentActor()));
  const mayChange = staff.may('set tiers');
  return (
    <>
      <MoneyTabs here="codes" />
      <div className="mt-4 flex flex-wrap items-center gap-4">
        <p className="max-w-prose text-muted">{desk('desk-codes.intro', { path: '/code' })}</p>
        {mayChange && (
          <LinkButton href="/desk/money/codes/new" className="ml-auto">
            {desk('desk-codes.new')}
          </LinkButton>
        )}
      </div>
      {codes.length === 0 ? (
        <div className="mt-5 max-w-3xl">
          <Empty title={desk('desk-codes.none-yet')}>{desk('desk-codes.none-yet-hint')}</Empty>
        </div>
      ) : (
        <Table
          heads={[
            desk('desk-codes.code'),
            desk('desk-codes.does'),
            desk('desk-codes.uses'),
            desk('desk-codes.income'),
            desk('desk-codes.until'),
          ]}
        >
          {codes.map((code) => (
            <tr key={code.id} className="border-t border-line align-top">
              <td className="py-2.5 pr-5">
                {mayChange ? (
                  <Link href={`/desk/money/codes/${code.id}`} className="font-semibold hover:underline">
                    {code.name}
                  </Link>
                ) : (
                  <b>{code.name}</b>
                )}
                {code.codes > 1 && (
                  <span className="block text-[0.9375rem] text-muted">
                    {desk('desk-codes.count', { count: code.codes })}
                  </span>
                )}
                {!code.isOn && (
                  <span className="ml-2 rounded-full bg-ended-wash px-2 py-0.5 text-sm font-semibold text-ended">
                    {desk('desk-codes.off')}
                  </span>
                )}
              </td>
              <td className="max-w-md py-2.5 pr-5">{codeGist(code, { tiers, passes, t })}</td>
              <td className="py-2.5 pr-5">
                {t.count(code.uses)}
                {code.mostUses !== null && (
                  <span className="text-muted"> / {t.count(code.mostUses * code.codes)}</span>
                )}
              </td>
              <td className="py-2.5 pr-5 whitespace-nowrap">
                {code.income.map(({ amount, currency }) => t.money(amount, currency)).join(', ') || '–'}
              </td>
              <td className="py-2.5 whitespace-nowrap">
                {code.lastDay ? t.until(endOfDate(code.lastDay, t.zone)) : '–'}
              </td>
            </tr>
          ))}
        </Table>
      )}
    </>
  );
}
