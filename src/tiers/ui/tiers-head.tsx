import type { ReactNode } from 'react';
import { Tabs } from '@/kit/tabs';

type Props = { here: 'tiers' | 'links' | 'questions' | 'unfinished'; children?: ReactNode };

/** The head of the Tiers place, with its views. */
export function TiersHead({ here, children }: Props) {
  return (
    <div className="flex flex-wrap items-center gap-3" id="desk-main">
      <h1 className="text-3xl">Tiers</h1>
      <Tabs
        label="Tiers"
        here={here}
        tabs={[
          { id: 'tiers', name: 'Tiers', path: '/desk/tiers' },
          { id: 'links', name: 'Join links', path: '/desk/tiers/links' },
          { id: 'questions', name: 'Join questions', path: '/desk/tiers/questions' },
          { id: 'unfinished', name: 'Unfinished checkouts', path: '/desk/tiers/unfinished' },
        ]}
      />
      {children}
    </div>
  );
}
