import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { noticeSample } from '@/app/notice-sample';
import { currentActor, requireStaff, shown } from '@/app/session';
import { itemDoorstep } from '@/access/services/doorsteps';
import { ItemDoorstepForm } from '@/access/ui/doorstep-form';
import { desk } from '@/words/desk';
import { saveItemDoorstepAction } from '../actions';

export const metadata: Metadata = { title: desk('desk-access.doorstep') };

export default async function ItemDoorstepPage({ params }: { params: Promise<{ id: string }> }) {
  await requireStaff('set access');
  const found = await shown(itemDoorstep(await currentActor(), (await params).id));
  const { item, version, doorstep, siteDoorstep } = found;
  const sample = { ...(await noticeSample()), item: item.title, summary: item.summary };
  return (
    <>
      <p>
        <Link href="/desk/access/doorsteps" className="text-spruce underline">
          {desk('desk-access.doorsteps')}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl break-words" id="desk-main">
        {desk('desk-access.doorstep-of', { title: item.title })}
      </h1>
      <ItemDoorstepForm
        key={version}
        action={saveItemDoorstepAction}
        itemId={item.id}
        {...{ version, doorstep, siteDoorstep, sample }}
      />
    </>
  );
}
