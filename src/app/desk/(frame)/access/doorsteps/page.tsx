import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { noticeSample } from '@/app/notice-sample';
import { currentActor, requireStaff, shown } from '@/app/session';
import { doorstepsPlace } from '@/access/services/doorsteps';
import { AccessTabs } from '@/access/ui/access-tabs';
import { SiteDoorstepForm } from '@/access/ui/doorstep-form';
import { desk } from '@/words/desk';
import { saveSiteDoorstepAction } from './actions';

export const metadata: Metadata = { title: desk('desk-access.doorsteps') };

export default async function DoorstepsPage() {
  await requireStaff('set access');
  const { doorstep, rules, items } = await shown(doorstepsPlace(await currentActor()));
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
        <h1 className="text-3xl">{desk('desk-access.doorsteps')}</h1>
        <AccessTabs here="doorsteps" />
      </div>
      <p className="mt-3 max-w-prose text-muted">{desk('desk-access.doorsteps-intro')}</p>
      <div className="grid items-start gap-8 xl:grid-cols-[1fr_20rem]">
        <SiteDoorstepForm
          key={JSON.stringify(doorstep)}
          action={saveSiteDoorstepAction}
          doorstep={doorstep}
          sample={await noticeSample()}
        />
        <section className="mt-4">
          <h2 className="text-lg">{desk('desk-access.met-instead')}</h2>
          {rules.length + items.length === 0 ? (
            <p className="mt-2 text-muted">{desk('desk-access.none-met-instead')}</p>
          ) : (
            <ul className="mt-2 divide-y divide-line rounded-card border border-line bg-surface">
              {rules.map(({ id, name }) => (
                <li key={`rule ${id}`}>
                  <Link href={`/desk/access/${id}`} className="block px-4 py-2 hover:bg-sunken">
                    {desk('desk-access.of-rule', { rule: name })}
                  </Link>
                </li>
              ))}
              {items.map(({ id, title }) => (
                <li key={`item ${id}`}>
                  <Link href={`/desk/access/doorsteps/${id}`} className="block px-4 py-2 hover:bg-sunken">
                    {title}
                  </Link>
                </li>
              ))}
            </ul>
          )}
        </section>
      </div>
    </>
  );
}
