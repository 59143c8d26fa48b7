import { Tabs } from '@/kit/tabs';
import { desk } from '@/words/desk';

/** The parts of the access place. */
export function AccessTabs({
  here,
}: {
  here: 'map' | 'rulebook' | 'doorsteps' | 'meters' | 'passes' | 'outside' | 'check';
}) {
  return (
    <Tabs
      label={desk('desk.view')}
      here={here}
      tabs={[
        { id: 'map', name: desk('desk-access.map'), path: '/desk/access' },
        { id: 'rulebook', name: desk('desk-access.rulebook'), path: '/desk/access?view=rulebook' },
        { id: 'doorsteps', name: desk('desk-access.doorsteps'), path: '/desk/access/doorsteps' },
        { id: 'meters', name: desk('desk-access.free-reads'), path: '/desk/access/meters' },
        { id: 'passes', name: desk('desk-access.passes'), path: '/desk/access/passes' },
        { id: 'outside', name: desk('desk-access.outside'), path: '/desk/access/outside' },
        { id: 'check', name: desk('desk-access.leak-check'), path: '/desk/access/check' },
      ]}
    />
  );
}
