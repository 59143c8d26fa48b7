import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { LinkButton } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { CheckField, TextField } from '@/kit/field';
import { Pager } from '@/kit/list-bar';
import { Table } from '@/kit/table';
import { lettersPlace } from '@/members/services/letters';
import { MembersTabs } from '@/members/ui/members-tabs';
import { desk } from '@/words/desk';
import { saveLetterSettingsAction } from './actions';

export const metadata: Metadata = { title: desk('desk-letters.title') };

export default async function LettersPage({ searchParams }: { searchParams: Search }) {
  const [t, staff] = [await deskWords(), await requireStaff('see members')];
  const asked = await searchOf(searchParams);
  const { letters, page, total, perPage, settings } = await shown(
    lettersPlace(await currentActor(), { page: asked.page }),
  );
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
        <h1 className="text-3xl">{desk('desk-letters.title')}</h1>
        <MembersTabs here="letters" />
        {staff.may('manage members') && (
          <LinkButton href={`/desk/members/letters/new`} className="ml-auto">
            {desk('desk-letters.write')}
          </LinkButton>
        )}
      </div>
      <p className="mt-2 max-w-prose text-muted">{desk('desk-letters.intro')}</p>
      {letters.length === 0 ? (
        <div className="mt-5 max-w-3xl">
          <Empty title={desk('desk-letters.none')}>{desk('desk-letters.none-hint')}</Empty>
        </div>
      ) : (
        <Table
          heads={[
            desk('desk-letters.head-subject'),
            desk('desk-letters.head-kind'),
            desk('desk-letters.head-state'),
            desk('desk-letters.head-sent'),
            desk('desk-letters.head-failed'),
            ...(settings.countsOpens ? [desk('desk-letters.head-opened')] : []),
            desk('desk-letters.head-date'),
          ]}
        >
          {letters.map((letter) => (
            <tr key={letter.id} className="border-t border-line">
              <th scope="row" className="py-2 pr-5 text-left font-semibold">
                <Link href={`/desk/members/letters/${letter.id}`} className="hover:underline">
                  {letter.subject}
                </Link>
              </th>
              <td className="py-2 pr-5">{desk(`desk-letters.kind-${letter.kind}`)}</td>
              <td className="py-2 pr-5">{desk(`desk-letters.state-${letter.state}`)}</td>
              <td className="figures py-2 pr-5">{t.count(letter.written)}</td>
              <td className="figures py-2 pr-5">{letter.failed > 0 ? t.count(letter.failed) : '–'}</td>
              {settings.countsOpens && <td className="figures py-2 pr-5">{t.count(letter.opened)}</td>}
              <td className="py-2 whitespace-nowrap text-muted">
                {letter.doneAt ? t.date(letter.doneAt) : letter.begunAt ? t.date(letter.begunAt) : '–'}
              </td>
            </tr>
          ))}
        </Table>
      )}
      <Pager page={page} total={total} rows={perPage} at={(n) => `/desk/members/letters?page=${n}`} />
      {staff.may('change settings') && (
        <ActionForm
          action={saveLetterSettingsAction}
          label={desk('desk-letters.settings')}
          className="mt-10 grid max-w-xl gap-4 rounded-card border border-line bg-surface p-5"
        >
          <h2 className="text-xl">{desk('desk-letters.settings')}</h2>
          <TextField
            name="lettersPerMinute"
            label={desk('desk-letters.rate')}
            hint={desk('desk-letters.rate-hint')}
            inputMode="numeric"
            defaultValue={String(settings.lettersPerMinute)}
            className="max-w-80"
          />
          <CheckField
            name="asksLetters"
            label={desk('desk-letters.asks')}
            hint={desk('desk-letters.asks-hint')}
            defaultChecked={settings.asksLetters}
          />
          <CheckField
            name="countsOpens"
            label={desk('desk-letters.counts')}
            hint={desk('desk-letters.counts-hint')}
            defaultChecked={settings.countsOpens}
          />
          <SubmitButton busy={desk('desk.saving')} look="quiet" className="w-fit">
            {desk('desk.save')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
    </>
  );
}
