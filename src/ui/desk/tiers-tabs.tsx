import { Tabs } from '../kit/tabs';

/** The views of the Tiers place. */
export function TiersTabs({ here }: { here: 'tiers' | 'links' | 'questions' | 'unfinished' }) {
  return (
    <Tabs
      label="Tiers"
      here={here}
      tabs={[
        { id: 'tiers', name: 'Tiers', path: '/desk/tiers' },
        { id: 'links', name: 'Join links', path: '/desk/tiers/links' },
        { id: 'questions', name: 'Asked at joining', path: '/desk/tiers/questions' },
        { id: 'unfinished', name: 'Unfinished', path: '/desk/tiers/unfinished' },
      ]}
    />
  );
}
