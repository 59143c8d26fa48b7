/**
 * The first screen of the map of 100,000 items with 200 rules: the time that the server takes for it, right after a change and
 * afterwards; for the rows of a group that is unfolded, for more rows, and for a search. npm run bench -- map
 */
import { fillContent, pagesSite } from './lib/pages-site';

const ROUNDS = 7;

export async function run(): Promise<void> {
  const site = await pagesSite();
  try {
    await fillContent(site.db);
    const { mapScreen, moreRows } = await import('../src/access/services/map');
    const { today } = await import('../src/desk/services/today');
    const { findAnything } = await import('../src/desk/services/find-anything');
    const { contentPlace } = await import('../src/access/services/content-place');
    const { siteAccess } = await import('../src/access/services/site-access');
    const { membersRoom } = await import('../src/access/services/members-room');
    const { SETUP } = await import('../src/platform/actor');
    const timed = async (name: string, ask: () => Promise<{ ok: boolean }>): Promise<void> => {
      const took: number[] = [];
      for (let round = 0; round < ROUNDS; round++) {
        const begun = performance.now();
        if (!(await ask()).ok) throw new Error(`${name} was refused`);
        took.push(performance.now() - begun);
      }
      const [first = 0, ...later] = took;
      const middle = later.sort((a, b) => a - b)[Math.floor(later.length / 2)] ?? 0;
      console.log(`${name.padEnd(40)} first ${Math.round(first)} ms, then ${Math.round(middle)} ms`);
    };
    const screen = await mapScreen(SETUP, {});
    if (!screen.ok) throw new Error('the map was refused');
    const { groups, viewpoints } = screen.value;
    const total = groups.reduce((sum, { count }) => sum + count, 0);
    const fullest = groups.reduce((most, one) => (one.count > most.count ? one : most));
    console.log(`${total} rows in ${groups.length} groups, ${viewpoints.length} viewpoints`);
    // As if something had been changed: nothing that was read before counts.
    await site.db.query(`UPDATE rules SET updated_at = now()`);
    await timed('first screen, folded', () => mapScreen(SETUP, {}));
    await timed('with a group unfolded', () => mapScreen(SETUP, { open: [fullest.key] }));
    await timed('the middle of that group', () =>
      moreRows(SETUP, { group: fullest.key, offset: Math.floor(fullest.count / 2) }),
    );
    await timed('a search', () => mapScreen(SETUP, { search: 'item 77', open: [fullest.key] }));
    const member = { kind: 'member', memberId: site.memberId, staffRole: null } as const;
    await site.db.query(`UPDATE rules SET updated_at = now()`);
    await timed('Today', () => today(SETUP));
    await timed('the place of the content', () => contentPlace(SETUP, {}));
    await timed('Find, for a word of a title', () => findAnything(SETUP, 'item 77'));
    await timed('access of the whole site', () => siteAccess(SETUP));
    await timed('the members’ room', () => membersRoom(member));
  } finally {
    await site.close();
  }
}
