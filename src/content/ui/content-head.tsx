import type { ReactNode } from 'react';
import { Tabs } from '@/kit/tabs';
import { desk } from '@/words/desk';

type Here = 'items' | 'menu' | 'categories' | 'tags' | 'kinds' | 'calendar' | 'comments' | 'trash';
type Props = { here: Here; children?: ReactNode };

/** The head of the Content place, with its views. */
export function ContentHead({ here, children }: Props) {
  return (
    <div className="flex flex-wrap items-center gap-3" id="desk-main">
      <h1 className="text-3xl">{desk('desk.content')}</h1>
      <Tabs
        label={desk('desk.content')}
        here={here}
        tabs={[
          { id: 'items', name: desk('desk-content.items'), path: '/desk/content' },
          { id: 'menu', name: desk('desk-content.menu'), path: '/desk/content/menu' },
          { id: 'categories', name: desk('desk.categories'), path: '/desk/content/categories' },
          { id: 'tags', name: desk('desk-content.tags'), path: '/desk/content/tags' },
          { id: 'kinds', name: desk('desk-content.kinds'), path: '/desk/content/kinds' },
          { id: 'calendar', name: desk('desk-content.calendar'), path: '/desk/content/calendar' },
          { id: 'comments', name: desk('desk-content.comments'), path: '/desk/content/comments' },
          { id: 'trash', name: desk('desk-content.trash'), path: '/desk/content/trash' },
        ]}
      />
      {children}
    </div>
  );
}
