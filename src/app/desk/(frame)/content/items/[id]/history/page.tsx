import type { Metadata } from 'next';
import { WRITES } from '@/core/staff';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { itemRevisions } from '@/content/services/revisions';
import { Stretches } from '@/content/ui/stretches';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { restoreRevisionAction } from '../../../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-content.history') };

type Props = { params: Promise<{ id: string }>; searchParams: Search };

/** The versions of an item, and one of them beside what it says now. */
export default async function HistoryPage({ params, searchParams }: Props) {
  await requireStaff(...WRITES);
  const [{ id }, { version }, t] = [await params, await searchOf(searchParams), await deskWords()];
  const asked = /^[1-9]\d{0,6}$/.test(version ?? '') ? version : undefined;
  const { item, revisions, compared } = await shown(
    itemRevisions(await currentActor(), { id, version: asked }),
  );
  return (
    <>
      <p>
        <Link href={`/desk/content/items/${id}`} className="text-spruce underline">
          {item.title}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl" id="desk-main">
        {desk('desk-content.history')}
      </h1>
      <div className="mt-5 grid items-start gap-8 lg:grid-cols-[20rem_minmax(0,1fr)]">
        <ol className="figures divide-y divide-line border-y border-line">
          {revisions.map((one) => (
            <li key={one.version}>
              <Link
                href={`/desk/content/items/${id}/history?version=${one.version}`}
                aria-current={compared?.version === one.version ? 'true' : undefined}
                className="block px-2 py-2 hover:bg-sunken aria-[current]:bg-sunken"
              >
                <span className="font-semibold">
                  {one.version === item.version
                    ? desk('desk-content.version-now', { version: one.version })
                    : desk('desk-content.version', { version: one.version })}
                </span>
                <span className="block text-[0.9375rem] text-muted">
                  {[t.dateTime(one.savedAt), one.by].filter(Boolean).join(' · ')}
                </span>
              </Link>
            </li>
          ))}
        </ol>
        {compared && compared.version !== item.version ? (
          <section>
            <div className="flex flex-wrap items-center gap-4">
              <h2 className="mr-auto text-xl">
                {desk('desk-content.compared', { version: compared.version })}
              </h2>
              <ActionForm action={restoreRevisionAction} label={desk('desk-content.restore-version')}>
                <input type="hidden" name="id" value={id} />
                <input type="hidden" name="version" value={compared.version} />
                <SubmitButton busy={desk('desk.saving')}>{desk('desk-content.restore-version')}</SubmitButton>
                <FormMessage />
              </ActionForm>
            </div>
            <p className="mt-1 text-muted">{desk('desk-content.compared-hint')}</p>
            <Stretches label={desk('desk-content.title')} stretches={compared.title} />
            <Stretches label={desk('desk-content.summary')} stretches={compared.summary} />
            <Stretches label={desk('desk-content.text')} stretches={compared.body} />
          </section>
        ) : (
          <p className="text-muted">{desk('desk-content.choose-version')}</p>
        )}
      </div>
    </>
  );
}
