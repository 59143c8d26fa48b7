import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { lastLeakCheck } from '@/access/services/leak-check';
import { AccessTabs } from '@/access/ui/access-tabs';
import { LeakCheck } from '@/access/ui/leak-check';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-access.leak-check') };

export default async function LeakCheckPage() {
  const staff = await requireStaff();
  const last = await shown(lastLeakCheck(await currentActor()));
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
        <h1 className="text-3xl">{desk('desk-access.leak-check')}</h1>
        <AccessTabs here="check" />
      </div>
      <p className="mt-3 max-w-prose text-muted">{desk('desk-access.leak-intro')}</p>
      <LeakCheck
        last={last}
        mayCheck={
          staff.may('set access') && staff.powers?.readsAll === true && staff.powers.shutFrom.length === 0
        }
      />
    </>
  );
}
