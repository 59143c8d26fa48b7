import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, requireStaff, shown } from '@/app/session';
import { outsideSites } from '@/access/services/outside-sites';
import { AccessTabs } from '@/access/ui/access-tabs';
import { buttonClass } from '@/kit/button';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { Empty } from '@/kit/empty';
import { TextArea } from '@/kit/field';
import { desk } from '@/words/desk';
import { saveFramesAction } from './actions';

export const metadata: Metadata = { title: desk('desk-access.outside') };

export default async function OutsideSitesPage() {
  const staff = await requireStaff();
  const { sites, frameOrigins, base } = await shown(outsideSites(await currentActor()));
  const mayChange = staff.may('set access');
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
        <h1 className="text-3xl">{desk('desk-access.outside')}</h1>
        <AccessTabs here="outside" />
        {mayChange && (
          <Link data-new href="/desk/access/outside/new" className={buttonClass('main', 'ml-auto')}>
            {desk('desk-access.outside-add')}
          </Link>
        )}
      </div>
      <p className="mt-3 max-w-prose text-muted">{desk('desk-access.outside-intro')}</p>
      {sites.length === 0 ? (
        <div className="mt-5 max-w-3xl">
          <Empty title={desk('desk-access.outside-none')}>{desk('desk-access.outside-none-hint')}</Empty>
        </div>
      ) : (
        <ul className="mt-5 grid max-w-4xl gap-3">
          {sites.map((site) => (
            <li key={site.id} className="rounded-card border border-line bg-surface p-4 break-words">
              <h2 className="text-lg">
                {mayChange ? (
                  <Link href={`/desk/access/outside/${site.id}`} className="hover:underline">
                    {site.name}
                  </Link>
                ) : (
                  site.name
                )}
              </h2>
              <p className="mt-1 text-muted">
                {site.prefix
                  ? desk('desk-access.outside-known-as', { origin: site.origin, prefix: site.prefix })
                  : desk('desk-access.outside-known-here')}
              </p>
            </li>
          ))}
        </ul>
      )}
      <ActionForm
        action={saveFramesAction}
        label={desk('desk-access.frames')}
        className="mt-8 grid max-w-2xl gap-4 rounded-card border border-line bg-surface p-5"
      >
        <h2 className="text-xl">{desk('desk-access.frames')}</h2>
        <TextArea
          name="origins"
          label={desk('desk-access.frames-label')}
          hint={desk('desk-access.frames-hint', { base })}
          defaultValue={frameOrigins.join('\n')}
          rows={3}
          readOnly={!mayChange}
        />
        <FormMessage />
        {mayChange && (
          <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
            {desk('desk.save')}
          </SubmitButton>
        )}
      </ActionForm>
    </>
  );
}
