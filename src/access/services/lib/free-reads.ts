import { decide, type Decision, type Question } from '@/core/access/decide';
import type { Meter, Read } from '@/core/access/facts';
import { allowanceOf, windowOf } from '@/core/access/meters';
import { addLength } from '@/core/calendar';
import { isBefore, type Instant } from '@/core/instants';
import type { ItemHead } from '@/content/store/items';
import { insertRead, listMeters, listReads, noteEnd, type Counted } from '@/access/store/meters';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { shareNot } from '@/platform/request';
import { shelved } from '@/platform/shelf';
import { lock, pool, transaction, type Db } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { hashToken, newToken, readSigned, sign } from '@/platform/tokens';
import { questionOf, type Reader } from './reader';

/** No window is longer: what was counted before is of no use. */
export const READS_KEPT = { n: -400, unit: 'day' } as const;

/** A browser that carries nothing of ours begins to count anew, but one address cannot begin again and again. */
const BEGINNINGS: Limit = { name: 'meter:begin', points: 60, seconds: 3600 };

export const keptMeters = (): Promise<Record<string, Meter>> =>
  shelved('meters', async () =>
    Object.fromEntries((await listMeters(pool())).map((meter) => [meter.id, meter])),
  );

/** Whose reads are counted with a request; null where it carries nothing by which it could be told. */
export function countedOf({ memberId, browser }: Actor): Counted | null {
  const token = browser?.reads ? readSigned(browser.reads) : null;
  return memberId === null && !token ? null : { memberId, browser: token ? hashToken(token) : null };
}

/** A reader who is let in, too, where a read was counted before that is still free; nothing is counted by that. */
export async function withReads(reader: Reader, actor: Actor): Promise<Reader> {
  const meters = await keptMeters();
  if (Object.keys(meters).length === 0) return reader;
  const counted = actor.look ? null : countedOf(actor);
  return counted ? { ...reader, free: await freeOf(pool(), reader, counted, meters) } : reader;
}

/** A reader to whom each read is the first: so a viewpoint of the map sees what has a meter. */
export const withAllReads = async (reader: Reader): Promise<Reader> => ({
  ...reader,
  free: { meters: await keptMeters(), reads: [], items: null },
});

async function freeOf(
  db: Db,
  { now, site }: Reader,
  counted: Counted,
  meters: Record<string, Meter>,
): Promise<NonNullable<Reader['free']>> {
  const reads = await listReads(db, counted, site.mode, addLength(now, READS_KEPT, site.zone));
  const items = new Set(
    reads.filter((read) => isInWindow(read, meters, reads, { now, zone: site.zone })).map(({ item }) => item),
  );
  return { meters, reads, items };
}

function isInWindow(
  { meter: id, at }: Read,
  meters: Record<string, Meter>,
  reads: Read[],
  moment: { now: Instant; zone: string },
): boolean {
  const meter = meters[id];
  const window = meter && windowOf(meter, reads, moment);
  return window !== undefined && window !== null && at >= window.from;
}

/** The meters of the rules that keep something closed. */
const metersOf = ({ rules }: Reader, refused: Decision): string[] =>
  rules.flatMap(({ id, meter, alsoRequire }) =>
    meter && !alsoRequire && refused.rules.includes(id) ? [meter] : [],
  );

export const hasMeter = (reader: Reader, refused: Decision): boolean => metersOf(reader, refused).length > 0;

/**
 * The time in a transaction that has the lock: not before what was counted of the person last, whatever the clocks of two
 * processes say, or a request that began earlier would not see what another has counted meanwhile.
 */
async function nowWithin(db: Db, { site }: Reader, counted: Counted): Promise<Instant> {
  const now = siteNow(site);
  const last = (await listReads(db, counted, site.mode, addLength(now, READS_KEPT, site.zone))).at(-1);
  return last && isBefore(now, last.at) ? last.at : now;
}

/** What a meter says to someone at an item: what is left of how many, or that nothing is, and from when on there is again. */
export type MeterNote = { left: number | null; of: number; freeAt: Instant | null };
export type FreeRead = {
  /** To whom what the item offers is open as well, where it is. */
  reader: Reader;
  decision: Decision;
  note: MeterNote | null;
  /** What the visitor's browser is to carry from now on. */
  cookie: string | null;
};

/**
 * Whether a person who is not let in may read an item for free, and counts it where they open its page. One who looks as
 * someone else is shown the first read of many, and nothing is counted.
 */
export async function readForFree(
  reader: Reader,
  actor: Actor,
  item: ItemHead,
  refused: Decision,
): Promise<FreeRead> {
  const none = { reader, decision: refused, note: null, cookie: null };
  const meters = await keptMeters();
  const [meter] = metersOf(reader, refused).flatMap((id) => meters[id] ?? []);
  if (!meter) return none;
  // What is left is counted for each.
  shareNot();
  if (actor.look) {
    const all = await withAllReads(reader);
    const decision = decide(questionOf(all, item));
    return { ...none, reader: all, decision, note: noteOf(decision, questionOf(reader, item), meters, []) };
  }
  if (!actor.browser?.isView) return none;
  const known = countedOf(actor);
  if (!known && (await spendPoint(BEGINNINGS, actor.address ?? '')) > 0) return none;
  const { token, hash } = newToken();
  const counted = known ?? { memberId: null, browser: hash };
  return transaction(async (db): Promise<FreeRead> => {
    await lock(db, 'reads', counted.memberId ?? counted.browser?.toString('hex') ?? '');
    const at = { ...reader, now: await nowWithin(db, reader, counted) };
    const free = await freeOf(db, at, counted, meters);
    const decision = decide(questionOf({ ...at, free: { ...free, items: null } }, item));
    const counting = { mode: reader.site.mode, at: at.now };
    if (decision.state === 'metered' && decision.meter) {
      // Another request of theirs may have counted it while this one waited.
      const isNew = !free.items?.has(item.id);
      if (isNew) await insertRead(db, counted, { ...counting, meterId: decision.meter, itemId: item.id });
      const reads = isNew
        ? [...free.reads, { meter: decision.meter, item: item.id, at: at.now }]
        : free.reads;
      return {
        reader: { ...at, free: { meters, reads, items: new Set([...(free.items ?? []), item.id]) } },
        decision,
        note: noteOf(decision, questionOf(at, item), meters, reads),
        cookie: known ? null : sign(token),
      };
    }
    const of = allowanceOf(meter, questionOf(reader, item).person);
    if (!of) return none;
    const window = windowOf(meter, free.reads, { now: at.now, zone: reader.site.zone });
    if (window) await noteEnd(db, counted, { ...counting, meterId: meter.id, since: window.from });
    return { ...none, note: { left: null, of, freeAt: window?.to ?? null } };
  });
}

/** The note of an item that is read for free. */
export function noteOf(
  { meter: id, left }: Decision,
  { person, now, zone }: Question,
  meters: Record<string, Meter>,
  reads: Read[],
): MeterNote | null {
  const meter = id === undefined ? undefined : meters[id];
  if (!meter || left === undefined) return null;
  const freeAt = windowOf(meter, reads, { now, zone })?.to ?? null;
  return { left, of: allowanceOf(meter, person) ?? 0, freeAt };
}
