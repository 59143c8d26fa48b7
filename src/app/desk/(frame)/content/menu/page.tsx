import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { menuEditor } from '@/access/services/content-place';
import { ContentHead } from '@/content/ui/content-head';
import { MenuList } from '@/content/ui/menu-list';
import { RoleList } from '@/content/ui/role-list';
import {
  arrangeMenuAction,
  removeMenuEntryAction,
  saveMenuEntryAction,
  savePageRoleAction,
} from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-content.menu-title') };

export default async function MenuPage() {
  const staff = await requireStaff();
  const { entries, roles, pages, ...targets } = await shown(menuEditor(await currentActor()));
  return (
    <>
      <ContentHead here="menu" />
      <p className="mt-4 max-w-prose text-muted">{desk('desk-content.menu-hint')}</p>
      <MenuList
        entries={entries}
        targets={{
          item: targets.items,
          kind: targets.kinds,
          category: targets.categories,
          tag: targets.tags,
          offer: targets.offers,
        }}
        mayWrite={staff.may('arrange content')}
        save={saveMenuEntryAction}
        remove={removeMenuEntryAction}
        arrange={arrangeMenuAction}
      />
      <RoleList
        roles={roles}
        pages={pages}
        mayWrite={staff.may('arrange content')}
        save={savePageRoleAction}
      />
    </>
  );
}
