import { Tabs } from '@/kit/tabs';
import { desk } from '@/words/desk';

/** The views of the place for members. */
export function MembersTabs({ here }: { here: 'members' | 'groups' | 'letters' | 'addresses' }) {
  return (
    <Tabs
      label={desk('desk.view')}
      here={here}
      tabs={[
        { id: 'members', name: desk('desk-members.all-members'), path: '/desk/members' },
        { id: 'groups', name: desk('desk-members.groups'), path: '/desk/members/groups' },
        { id: 'letters', name: desk('desk-letters.title'), path: '/desk/members/letters' },
        { id: 'addresses', name: desk('desk-letters.addresses'), path: '/desk/members/addresses' },
      ]}
    />
  );
}
