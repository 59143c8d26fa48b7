import { Tabs } from '@/kit/tabs';
import { desk } from '@/words/desk';

/** The two views of the place for members. */
export function MembersTabs({ here }: { here: 'members' | 'groups' }) {
  return (
    <Tabs
      label={desk('desk.view')}
      here={here}
      tabs={[
        { id: 'members', name: desk('desk-members.all-members'), path: '/desk/members' },
        { id: 'groups', name: desk('desk-members.groups'), path: '/desk/members/groups' },
      ]}
    />
  );
}
