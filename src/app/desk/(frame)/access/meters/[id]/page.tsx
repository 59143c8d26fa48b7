import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, requireStaff, shown } from '@/app/session';
import { meterEditor } from '@/access/services/meters';
import { MeterForm } from '@/access/ui/meter-form';
import { ConfirmAction } from '@/kit/confirm-action';
import { desk } from '@/words/desk';
import { deleteMeterAction, saveMeterAction } from '../actions';

export const metadata: Metadata = { title: desk('desk-access.meter') };

export default async function MeterPage({ params }: { params: Promise<{ id: string }> }) {
  await requireStaff('set access');
  const { meter, tiers, groups } = await shown(meterEditor(await currentActor(), (await params).id));
  return (
    <>
      <p>
        <Link href="/desk/access/meters" className="text-spruce underline">
          {desk('desk-access.free-reads')}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl break-words" id="desk-main">
        {meter ? meter.name : desk('desk-access.a-new-meter')}
      </h1>
      <MeterForm key={meter?.version} action={saveMeterAction} {...{ meter, tiers, groups }} />
      {meter && (
        <div className="mt-5 flex max-w-2xl">
          <ConfirmAction
            action={deleteMeterAction}
            fields={{ id: meter.id }}
            summary={desk('desk-access.delete-meter')}
            question={desk('desk-access.delete-meter-really', { name: meter.name })}
            yes={desk('desk-access.yes-delete')}
            busy={desk('desk.deleting')}
          />
        </div>
      )}
    </>
  );
}
