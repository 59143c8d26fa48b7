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

/** Members that are found by one look at the filter, and of those, that are read at a time. */
const FOUND_AT_ONCE = 20_000;
const READ_AT_ONCE = 1_000;

type Exported = ExportedMember & { joinedAt: Instant };
type Export = { site: Site; now: Instant; filter: MemberFilter; hasAnswers: boolean };
type Joined = { id: string; joinedAt: Instant };

/** Who is exported, in the order of the list. */
async function* findPages({ site, now, filter }: Export): AsyncGenerator<Joined[]> {
  for (let after: ListPlace | undefined; ;) {
    const found = await listJoined(pool(), site.mode, now, filter, { limit: FOUND_AT_ONCE, after });
    for (let from = 0; from < found.length; from += READ_AT_ONCE)
      yield found.slice(from, from + READ_AT_ONCE);
    const last = found.at(-1);
    if (!last || found.length < FOUND_AT_ONCE) return;
    after = { key: last.joinedAt, id: last.id };
  }
}

async function readPage({ site, now, hasAnswers }: Export, found: Joined[]): Promise<Exported[]> {
  const ids = found.map(({ id }) => id);
  const more = await listForExport(pool(), site.mode, now, ids, hasAnswers);
  return found.flatMap(({ id, joinedAt }) => {
    const member = more.get(id);
    return member ? [{ ...member, joinedAt }] : [];
  });
}

/** All of them, a page at a time; while one is written, the next is on its way. */
async function* pagesOf(asked: Export): AsyncGenerator<Exported[]> {
  let coming: Promise<Exported[]> | undefined;
  for await (const found of findPages(asked)) {
    const page = coming;
    coming = readPage(asked, found);
    // Where nobody fetches the rest, nobody hears that it failed.
    coming.catch(() => {});
    if (page) yield await page;
  }
  if (coming) yield await coming;
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
async function* csv(asked: Export): AsyncGenerator<string> {
  const { site } = asked;
  const day = (at: Instant | null): string => (at ? localDate(at, site.zone) : '');
  /** The last day on which something is still held. */
  const lastDay = (end: Instant | null): string => (end ? day(fromMs(toMs(end) - 1)) : '');
  yield csvLine(HEAD);
  for await (const members of pagesOf(asked))
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
async function* json(asked: Export): AsyncGenerator<string> {
  yield '[';
  let isFirst = true;
  for await (const members of pagesOf(asked))
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
    const whole = { site, now, filter, hasAnswers: form === 'json' };
    return done({ lines: form === 'csv' ? csv(whole) : json(whole) });
  },
);
