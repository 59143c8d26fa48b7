import type { ReactNode } from 'react';
import { Tabs } from '@/kit/tabs';
import { desk } from '@/words/desk';

type Props = { here: 'tiers' | 'links' | 'questions' | 'unfinished'; children?: ReactNode };

/** The head of the Tiers place, with its views. */
export function TiersHead({ here, children }: Props) {
  return (
    <div className="flex flex-wrap items-center gap-3" id="desk-main">
      <h1 className="text-3xl">{desk('desk.tiers')}</h1>
      <Tabs
        label={desk('desk.tiers')}
        here={here}
        tabs={[
          { id: 'tiers', name: desk('desk.tiers'), path: '/desk/tiers' },
          { id: 'links', name: desk('desk-tiers.join-links'), path: '/desk/tiers/links' },
          { id: 'questions', name: desk('desk-tiers.join-questions'), path: '/desk/tiers/questions' },
          { id: 'unfinished', name: desk('desk-tiers.unfinished-checkouts'), path: '/desk/tiers/unfinished' },
        ]}
      />
      {children}
    </div>
  );
}
