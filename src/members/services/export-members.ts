import { z } from 'zod';
import { localDate } from '@/core/calendar';
import { csvLine } from '@/core/csv';
import { fromMs, toMs, type Instant } from '@/core/instants';
import { listJoined, type ListPlace, type MemberFilter } from '@/members/store/member-lists';
import { listForExport, type ExportedMember } from '@/members/store/member-export';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { memberFilterOf, memberFilterSchema } from './lib/member-filter';

/** Members that are read at a time. */
const AT_ONCE = 1_000;

async function* pagesOf(
  site: Site,
  now: Instant,
  filter: MemberFilter,
): AsyncGenerator<(ExportedMember & { joinedAt: Instant })[]> {
  let after: ListPlace | undefined;
  for (;;) {
    const rows = await listJoined(pool(), site.mode, now, filter, { limit: AT_ONCE, after });
    const last = rows.at(-1);
    if (!last) return;
    const more = await listForExport(
      pool(),
      site.mode,
      now,
      rows.map(({ id }) => id),
    );
    yield rows.flatMap((row) => {
      const found = more.get(row.id);
      return found ? { ...found, joinedAt: row.joinedAt } : [];
    });
    if (rows.length < AT_ONCE) return;
    after = { key: last.key, id: last.id };
  }
}

const HEAD = [
  'email',
  'name',
  'joined',
  'tier',
  'since',
  'until',
  'why',
  'state',
  'groups',
  'passes',
  'note',
  'country',
  'confirmed',
  'last seen',
];

/** One line for each tier that a member holds, and one for a member who holds none: the form in which members are imported. */
async function* csv(site: Site, now: Instant, filter: MemberFilter): AsyncGenerator<string> {
  const day = (at: Instant | null): string => (at ? localDate(at, site.zone) : '');
  /** The last day on which something is still held. */
  const lastDay = (end: Instant | null): string => (end ? day(fromMs(toMs(end) - 1)) : '');
  yield csvLine(HEAD);
  for await (const members of pagesOf(site, now, filter))
    yield members
      .flatMap((m) =>
        (m.held.length > 0 ? m.held : [null]).map((held) =>
          csvLine([
            m.email,
            m.name,
            day(m.joinedAt),
            held?.tier ?? '',
            day(held?.since ?? null),
            lastDay(held?.until ?? null),
            held?.why ?? '',
            m.state ?? '',
            m.groups.join('; '),
            m.passes.join('; '),
            m.notes.join('\n'),
            m.country,
            m.confirmedAt ? 'yes' : 'no',
            day(m.seenAt),
          ]),
        ),
      )
      .join('');
}

/** The same as an array of JSON objects, with answers; instants are UTC. */
async function* json(site: Site, now: Instant, filter: MemberFilter): AsyncGenerator<string> {
  yield '[';
  let isFirst = true;
  for await (const members of pagesOf(site, now, filter))
    for (const member of members) {
      yield `${isFirst ? '\n' : ',\n'}${JSON.stringify(member)}`;
      isFirst = false;
    }
  yield '\n]\n';
}

const exportSchema = z.object({ filter: memberFilterSchema, form: z.enum(['csv', 'json']) });

/** The members that a filter leaves, as a stream of CSV or JSON. */
export const exportMembers = staffUse('manage members')(
  'export-members',
  exportSchema,
  async (actor, { filter: asked, form }) => {
    const site = await currentSite();
    const now = siteNow(site);
    await record(pool(), actor, now, 'members exported', 'site', { form });
    const filter = memberFilterOf(asked, now, site.zone);
    return done({ lines: form === 'csv' ? csv(site, now, filter) : json(site, now, filter) });
  },
);
