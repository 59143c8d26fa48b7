import { z } from 'zod';
import { isOn } from '@/core/access/open-week';
import { listGroup, type Sought } from '@/content/store/item-lists';
import { csvLine } from '@/core/csv';
import { optionalDate } from '@/platform/form-fields';
import { done } from '@/platform/result';
import type { Actor } from '@/platform/actor';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { unknownItems } from './lib/desk-items';
import { nameOf, readViewpoints } from './lib/access-map';
import { withAllReads } from './lib/free-reads';
import {
  byRules,
  groupSchema,
  mapGroups,
  mapRows,
  rowsFor,
  type MapGroup,
  type MapRow,
} from './lib/map-rows';
import { painted, paintsSchema, stampOf, type PaintInput } from './lib/paints';
import type { Reader } from './lib/reader';
import { atTimeOf, viewpointFor, type SeenFrom } from './lib/viewpoints';

export type { Cell, MapGroup, MapRow } from './lib/map-rows';
export type { SeenFrom } from './lib/viewpoints';

/** How many rows come at once. */
export const ROWS = 60;

const seenSchema = z.object({
  on: optionalDate.default(null),
  /** A viewpoint besides those that the site has: of one member. */
  also: z.string().max(200).default(''),
  search: z.string().trim().max(200).default(''),
  /** What was painted, and not applied yet: it is shown as if it were. */
  paints: paintsSchema.default([]),
});

type Seen = { reader: Reader; viewpoints: SeenFrom[] };

/** The reader and the columns of the map, at a time and by the rules that it shows. */
async function seenBy(actor: Actor, { on, also, paints }: z.output<typeof seenSchema>): Promise<Seen> {
  const site = await currentSite();
  const { reader: now, viewpoints } = await readViewpoints();
  const at = on ? atTimeOf(now.now, on, site.zone) : now.now;
  const one = also ? await viewpointFor(actor, site, on ? `${also}@${on}` : also) : null;
  const columns = one ? [...viewpoints, { ...one, name: nameOf(one) }] : viewpoints;
  const reader = await withAllReads({ ...now, now: at });
  return { reader: await withPaints(actor, reader, paints), viewpoints: columns };
}

/** Rows of what the staff member may not know of are left out. */
const soughtBy = async (actor: Actor, { search }: { search: string }): Promise<Sought> => ({
  search,
  without: await unknownItems(actor),
});

async function withPaints(actor: Actor, reader: Reader, paints: PaintInput[]): Promise<Reader> {
  return paints.length > 0 ? byRules(reader, (await painted(actor, reader, paints)).after) : reader;
}

/** The frame of the map: its columns, and its groups with how each is set; and the first rows of those that are open. */
export const mapScreen = staffUse('look')(
  'map-screen',
  seenSchema
    .extend({
      /** Left out: all of a small site, none of a large one. */
      open: z.array(groupSchema).max(50).optional(),
    })
    .prefault({}),
  async (actor, input) => {
    const { reader, viewpoints } = await seenBy(actor, input);
    const sought = await soughtBy(actor, input);
    const groups = await mapGroups(reader, viewpoints, sought);
    const rows: Record<string, MapRow[]> = {};
    const total = groups.reduce((sum, { count }) => sum + count, 0);
    const open = input.open ?? (total <= ROWS ? groups.map(({ group }) => group) : []);
    for (const group of groups)
      if (open.some((one) => JSON.stringify(one) === JSON.stringify(group.group)))
        rows[group.key] = await mapRows(reader, viewpoints, {
          group: group.group,
          ...sought,
          limit: ROWS,
          offset: 0,
        });
    const { week, now } = reader;
    return done({
      viewpoints: viewpoints.map(({ id, name, tier }) => ({ id, name, keyCut: tier?.keyCut ?? null })),
      groups,
      rows,
      openWeek: week && isOn(week, now) ? week : null,
      stamp: stampOf(reader),
    });
  },
);

/** More rows of a group. */
export const moreRows = staffUse('look')(
  'more-rows',
  seenSchema.extend({ group: groupSchema, offset: z.number().int().min(0).max(1_000_000) }),
  async (actor, { group, offset, ...input }) => {
    const { reader, viewpoints } = await seenBy(actor, input);
    const asked = { group, ...(await soughtBy(actor, input)), limit: ROWS, offset };
    return done(await mapRows(reader, viewpoints, asked));
  },
);

/** How many rows are looked at for those that differ from their group; more would keep others waiting. */
const LOOKED_AT = 5_000;

/** The rows of a group that are not decided as the group is, from any of the viewpoints; of the first few thousand. */
export const differingRows = staffUse('look')(
  'differing-rows',
  seenSchema.extend({ group: groupSchema }),
  async (actor, { group, ...input }) => {
    const { reader, viewpoints } = await seenBy(actor, input);
    const sought = await soughtBy(actor, input);
    const of = (await mapGroups(reader, viewpoints, sought)).find(
      (one) => JSON.stringify(one.group) === JSON.stringify(group),
    );
    if (!of) return done({ rows: [], isAll: true });
    const rows: MapRow[] = [];
    for (let offset = 0; offset < Math.min(of.count, LOOKED_AT); offset += 500) {
      const slice = { group, ...sought, limit: 500, offset };
      const found = await rowsFor(reader, viewpoints, await listGroup(pool(), reader.now, slice));
      rows.push(...found.filter((row) => differs(row, of)));
    }
    return done({ rows, isAll: of.count <= LOOKED_AT });
  },
);

const differs = (row: MapRow, group: MapGroup): boolean =>
  row.cells.some((cell, n) => cell.state !== group.cells[n]?.state);

/** The whole map as lines of a CSV file, a page at a time: the item, its address, and a column for each viewpoint. */
export const exportMap = staffUse('look')('export-map', seenSchema.prefault({}), async (actor, input) => {
  const { reader, viewpoints } = await seenBy(actor, { ...input, paints: [] });
  const sought = await soughtBy(actor, input);
  const groups = await mapGroups(reader, viewpoints, sought);
  async function* lines(): AsyncGenerator<string> {
    yield csvLine(['group', 'title', 'id', ...viewpoints.map(({ name }) => name)]);
    for (const { group, title, count } of groups)
      for (let offset = 0; offset < count; offset += 500)
        for (const row of await mapRows(reader, viewpoints, {
          group,
          ...sought,
          limit: 500,
          offset,
        }))
          yield csvLine([title, row.title, row.id, ...row.cells.map(({ state }) => state)]);
  }
  return done({ lines });
});
