import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { ActionForm, FormMessage } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { Email } from '@/kit/email';
import { Empty } from '@/kit/empty';
import { TextField } from '@/kit/field';
import { Pager } from '@/kit/list-bar';
import { Sentence } from '@/kit/sentence';
import { Table } from '@/kit/table';
import { addressesPlace } from '@/members/services/mail-addresses';
import { MembersTabs } from '@/members/ui/members-tabs';
import { desk } from '@/words/desk';
import { removeAddressAction } from './actions';

export const metadata: Metadata = { title: desk('desk-letters.addresses') };

export default async function AddressesPage({ searchParams }: { searchParams: Search }) {
  const [t, staff] = [await deskWords(), await requireStaff('see members')];
  const { q = '', page: asked } = await searchOf(searchParams);
  const { rows, total, page, perPage } = await shown(
    addressesPlace(await currentActor(), { q, page: asked }),
  );
  const yes = (isOn: boolean | null): string => desk(isOn ? 'desk-letters.yes' : 'desk-letters.no');
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
        <h1 className="text-3xl">{desk('desk-letters.addresses')}</h1>
        <p className="text-muted">{desk('desk-letters.addresses-count', { count: total })}</p>
        <MembersTabs here="addresses" />
      </div>
      <p className="mt-2 max-w-prose text-muted">{desk('desk-letters.addresses-intro')}</p>
      {(total > 0 || q !== '') && (
        <form method="get" className="mt-4 flex flex-wrap items-end gap-3">
          <TextField
            name="q"
            label={desk('desk-members.email')}
            defaultValue={q}
            maxLength={200}
            className="w-full sm:w-80"
          />
          <Button type="submit" look="quiet">
            {desk('desk-letters.find')}
          </Button>
        </form>
      )}
      {rows.length === 0 ? (
        <div className="mt-5 max-w-3xl">
          <Empty title={desk(q ? 'desk-letters.none-match' : 'desk-letters.no-addresses')}>
            <Sentence
              words={desk('desk-letters.no-addresses-hint')}
              parts={{
                link: (words) => (
                  <Link href="/by-mail" className="underline">
                    {words}
                  </Link>
                ),
              }}
            />
          </Empty>
        </div>
      ) : (
        <Table
          heads={[
            desk('desk-members.email'),
            desk('desk-letters.head-how'),
            desk('desk-letters.head-posts'),
            desk('desk-letters.head-letters'),
            desk('desk-letters.head-since'),
            '',
          ]}
        >
          {rows.map((row) => (
            <tr key={row.id} className="border-t border-line">
              <th scope="row" className="py-2 pr-5 text-left font-semibold">
                <Email address={row.email} />
              </th>
              <td className="py-2 pr-5">{desk(`desk-letters.how-${row.how}`)}</td>
              <td className="py-2 pr-5">{yes(row.getsPosts)}</td>
              <td className="py-2 pr-5">{yes(row.getsLetters)}</td>
              <td className="py-2 pr-5 text-muted">{t.date(row.confirmedAt)}</td>
              <td className="py-1 text-right">
                {staff.may('manage members') && (
                  <ActionForm action={removeAddressAction}>
                    <input type="hidden" name="id" value={row.id} />
                    <button
                      className="text-spruce underline"
                      aria-label={desk('desk-letters.remove-address', { email: row.email })}
                    >
                      {desk('desk-letters.remove')}
                    </button>
                    <FormMessage />
                  </ActionForm>
                )}
              </td>
            </tr>
          ))}
        </Table>
      )}
      <Pager
        page={page}
        total={total}
        rows={perPage}
        at={(n) => `/desk/members/addresses?${new URLSearchParams({ q, page: String(n) })}`}
      />
    </>
  );
}
