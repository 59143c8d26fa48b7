import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, requireStaff, shown } from '@/app/session';
import { outsideSite } from '@/access/services/outside-sites';
import { nginxLines } from '@/core/access/nginx-lines';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { ConfirmAction } from '@/kit/confirm-action';
import { TextField } from '@/kit/field';
import { config } from '@/platform/config';
import { desk } from '@/words/desk';
import { deleteOutsideAction, newSecretAction, saveOutsideAction } from '../actions';

export const metadata: Metadata = { title: desk('desk-access.outside-site') };

export default async function OutsideSitePage({ params }: { params: Promise<{ id: string }> }) {
  await requireStaff('set access');
  const { site, here } = await shown(outsideSite(await currentActor(), (await params).id));
  const web = config().SITE_URL;
  return (
    <>
      <p>
        <Link href="/desk/access/outside" className="text-spruce underline">
          {desk('desk-access.outside')}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl break-words" id="desk-main">
        {site ? site.name : desk('desk-access.outside-new')}
      </h1>
      <div className="mt-5 grid grid-cols-1 items-start gap-8 lg:grid-cols-[26rem_minmax(0,1fr)]">
        <div className="grid grid-cols-1 gap-6">
          <ActionForm
            key={site?.version}
            action={saveOutsideAction}
            emptyWhenDone={!site}
            label={desk('desk-access.outside-site')}
            className="grid gap-5 rounded-card border border-line bg-surface p-5 [overflow-wrap:anywhere]"
          >
            <input type="hidden" name="id" value={site?.id ?? ''} />
            {site && <input type="hidden" name="version" value={site.version} />}
            <TextField name="name" label={desk('desk.name')} defaultValue={site?.name} />
            <TextField
              name="origin"
              label={desk('desk-access.outside-origin')}
              hint={desk('desk-access.outside-origin-hint', { here })}
              defaultValue={site?.origin}
              inputMode="url"
            />
            <TextField
              name="prefix"
              label={desk('desk-access.outside-prefix')}
              hint={desk('desk-access.outside-prefix-hint')}
              defaultValue={site?.prefix}
            />
            <FormMessage />
            <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
              {site ? desk('desk.save') : desk('desk-access.outside-save')}
            </SubmitButton>
          </ActionForm>
          {site && (
            <div className="flex flex-wrap gap-3 [overflow-wrap:anywhere]">
              <ConfirmAction
                action={newSecretAction}
                fields={{ id: site.id }}
                summary={desk('desk-access.outside-new-secret')}
                question={desk('desk-access.outside-new-secret-really')}
                yes={desk('desk-access.outside-yes-secret')}
                busy={desk('desk.saving')}
              />
              <ConfirmAction
                action={deleteOutsideAction}
                fields={{ id: site.id }}
                summary={desk('desk-access.outside-remove')}
                question={desk('desk-access.outside-remove-really', { name: site.name })}
                yes={desk('desk-access.yes-delete')}
                busy={desk('desk.deleting')}
              />
            </div>
          )}
        </div>
        <section>
          <h2 className="text-xl">{desk('desk-access.outside-nginx')}</h2>
          <p className="mt-2 max-w-prose text-muted">{desk('desk-access.outside-nginx-hint')}</p>
          <pre className="mt-3 overflow-x-auto rounded-md bg-sunken p-4 text-sm" tabIndex={0}>
            {nginxLines({ web, isHere: site?.origin === here })}
          </pre>
        </section>
      </div>
    </>
  );
}
