import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { phrasesFound } from '@/core/access/leaks';
import { FILE, LINK, PAGE } from '@/core/content/item';
import { readViewpoint } from '@/core/access/viewpoint';
import { listFilesOf } from '@/content/store/files';
import { listPublished } from '@/content/store/item-lists';
import { listTitles } from '@/content/store/items';
import { keptCategories, keptKinds, keptTags } from '@/content/services/lib/kept';
import {
  advanceLeakCheck,
  findLeakCheck,
  insertLeakCheck,
  newestLeakCheck,
  type CheckedAddress,
  type Finding,
  type LeakCheck,
} from '@/access/store/leak-checks';
import { deleteApiKey, insertApiKey } from '@/people/store/api-keys';
import { newToken } from '@/platform/tokens';
import type { Mode } from '@/platform/store/site';
import type { Powers } from '@/core/staff';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { config } from '@/platform/config';
import { cookieName } from '@/platform/cookies';
import { nothing, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { readViewpoints, titleOf } from './lib/access-map';
import { feedItemsFor } from './lib/feed-items';
import { closedWords, type ClosedWords } from './lib/closed-words';
import { withAllReads } from './lib/free-reads';
import type { Reader } from './lib/reader';
import { findViewpoint } from './lib/viewpoints';

/** So many items are asked for, the newest: of each its page, and of a file its bytes. */
const MOST_ITEMS = 5_000;
/** How many pages of a list, and how many searches by closed words. */
const [PAGES, SEARCHES] = [3, 12];
/** How many answers are looked at in one piece, and how many are asked for at once. */
const [PIECE, AT_ONCE] = [96, 4];

/** The latest check, with the titles of the items it names. Only staff who read everything see the closed words. */
export const lastLeakCheck = staffUse('look')('last-leak-check', nothing, async (actor) => {
  const check = await newestLeakCheck(pool());
  if (!check) return done(null);
  const found = seesAll(await powersOf(actor))
    ? check.found
    : check.found.map((one) => ({ ...one, evidence: '' }));
  return done(await shownCheck({ ...check, found }));
});

/** Findings are closed words: they are for staff to whom no category is shut. */
const seesAll = (powers: Powers | null): boolean => powers?.readsAll === true && powers.shutFrom.length === 0;

async function shownCheck(check: LeakCheck) {
  const { id, startedAt, finishedAt, position, total, found, plan } = check;
  const ids = [...new Set(found.flatMap(({ item }) => item ?? []))];
  const titles = ids.length > 0 ? await listTitles(pool(), ids) : [];
  const viewpoints: Record<string, string> = {};
  for (const one of plan.viewpoints) {
    const seen = await findViewpoint(await currentSite(), one);
    viewpoints[one] = seen ? titleOf(seen) : one;
  }
  return {
    id,
    startedAt,
    finishedAt,
    position,
    total,
    addresses: plan.addresses.length,
    viewpoints,
    found,
    titles: Object.fromEntries(titles.map((title) => [title.id, title.name])),
  };
}

/** Begins a check: works out what is asked for, and as whom. Only for those who read everything, for its findings are closed words. */
export const beginLeakCheck = staffUse('set access')(
  'begin-leak-check',
  nothing,
  async (actor): Promise<Result<{ id: string; total: number }>> => {
    if (!seesAll(await powersOf(actor))) return refusedField('', 'viewpoint.not-allowed');
    const { reader, viewpoints } = await readViewpoints();
    const addresses = await addressesOf(reader);
    const plan = { viewpoints: viewpoints.map(({ id }) => id), addresses };
    const total = plan.viewpoints.length * addresses.length;
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      const { id } = await insertLeakCheck(db, { startedAt: at, startedBy: actor.memberId, plan, total });
      await record(db, actor, at, 'leak check started', 'site', { addresses: addresses.length });
      return done({ id, total });
    });
  },
);

const [API, FRAMES] = ['/api/v1', '/embed'];
/** The private feed of someone: where it is, only they know, but what it holds is worked out here as for them. */
const FEED = '/feeds/…';

/**
 * Every address that the site answers: of items and files, lists, feeds, the site map, searches for closed words, the API and
 * frames.
 */
async function addressesOf(reader: Reader): Promise<CheckedAddress[]> {
  const items = await listPublished(pool(), reader.now, {}, { limit: MOST_ITEMS, offset: 0 });
  const files = await listFilesOf(
    pool(),
    items.filter(({ type }) => type === FILE).map(({ id }) => id),
  );
  const list = (path: string): CheckedAddress => ({ path, kind: 'list', item: null });
  const pagesOf = (path: string): CheckedAddress[] =>
    Array.from({ length: PAGES }, (_, n) =>
      list(n === 0 ? path : `${path}${path.includes('?') ? '&' : '?'}page=${n + 1}`),
    );
  const { phrases } = await closedWords(reader, 'visitor');
  const searches = [...phrases.keys()].slice(0, SEARCHES).map((phrase) => {
    const words = phrase.split(' ').slice(0, 3).join(' ');
    return list(`/search?q=${encodeURIComponent(words)}`);
  });
  return [
    ...['/', '/join', '/archive', '/sitemap.xml', '/feed.xml', '/feed.atom', '/feed.json'].map(list),
    ...(await keptKinds()).flatMap(({ path }) => (path ? pagesOf(path) : [])),
    ...(await keptCategories()).flatMap(({ id }) => pagesOf(`/categories/${id}`)),
    ...(await keptTags()).flatMap(({ id }) => list(`/tags/${encodeURIComponent(id)}`)),
    ...searches,
    ...items.map(({ id, path, type }): CheckedAddress => ({
      path,
      // Where a link leads is another site's; a page with panels shows what is not its own text.
      kind: type === LINK || type === PAGE ? 'list' : 'item',
      item: id,
    })),
    ...items.flatMap(({ id }): CheckedAddress[] => {
      const file = files.get(id);
      return file
        ? [{ path: `/downloads/${id}/${encodeURIComponent(file.name)}`, kind: 'file', item: id }]
        : [];
    }),
    list(FEED),
    ...pagesOf(`${API}/items?size=100`),
    ...items.flatMap(({ id }): CheckedAddress[] =>
      [`${API}/items`, FRAMES].map((place) => ({
        path: `${place}/${encodeURIComponent(id)}`,
        kind: 'list',
        item: id,
      })),
    ),
  ];
}

/** Does the next piece of a check: asks for some addresses as it was planned, and compares the answers with the decisions. */
export const stepLeakCheck = staffUse('set access')(
  'step-leak-check',
  z.object({ id: uuid }),
  async (actor, { id }) => {
    if (!seesAll(await powersOf(actor))) return refusedField('', 'viewpoint.not-allowed');
    const check = await findLeakCheck(pool(), id);
    if (!check) return missing();
    if (check.finishedAt) return done(await shownCheck(check));
    const { viewpoints, addresses } = check.plan;
    const nth = Math.floor(check.position / addresses.length);
    const viewpoint = viewpoints[nth];
    const first = check.position - nth * addresses.length;
    const piece = addresses.slice(first, first + PIECE);
    const to = viewpoint === undefined ? check.total : check.position + piece.length;
    const found = viewpoint === undefined ? [] : await checkPiece(actor, viewpoint, piece);
    const finishedAt = to >= check.total ? siteNow(await currentSite()) : null;
    await advanceLeakCheck(pool(), id, { from: check.position, to, found, finishedAt });
    const now = await findLeakCheck(pool(), id);
    return now ? done(await shownCheck(now)) : missing();
  },
);

async function checkPiece(actor: Actor, viewpoint: string, piece: CheckedAddress[]): Promise<Finding[]> {
  const site = await currentSite();
  const seen = readViewpoint(viewpoint) && (await findViewpoint(site, viewpoint));
  // A tier or a group may be gone since the check began.
  if (!seen) return [];
  const { reader } = await readViewpoints();
  const as = { ...reader, person: seen.person };
  // Visitors are checked without cookies. Every other viewpoint uses Look as, which shows metered items as a first read.
  const words = await closedWords(viewpoint === 'visitor' ? as : await withAllReads(as), viewpoint);
  // A frame knows only who was let in to it: it answers all viewpoints alike.
  const asked = piece.filter(({ path }) => viewpoint === 'visitor' || !path.startsWith(`${FRAMES}/`));
  const key = await keyFor(actor, site.mode);
  const found: Finding[] = [];
  for (let from = 0; from < asked.length; from += AT_ONCE) {
    const answers = asked
      .slice(from, from + AT_ONCE)
      .map(async (address) =>
        findingsIn(
          address,
          viewpoint,
          words,
          await answerTo(actor, as, { viewpoint, path: address.path, key: key.key }),
        ),
      );
    found.push(...(await Promise.all(answers)).flat());
  }
  await deleteApiKey(pool(), key.id);
  return found;
}

type Answer = { status: number; text: string };

async function answerTo(
  actor: Actor,
  as: Reader,
  { viewpoint, path, key }: { viewpoint: string; path: string; key: string },
): Promise<Answer> {
  if (path === FEED) return { status: 200, text: JSON.stringify(await feedItemsFor(as)) };
  return path.startsWith(API) ? askApi(key, viewpoint, path) : ask(actor, viewpoint, path);
}

/** A key of the one who checks, for the answers of one piece. */
async function keyFor({ memberId }: Actor, mode: Mode): Promise<{ id: string; key: string }> {
  const { token: key, hash } = newToken();
  const id = randomUUID();
  if (memberId) {
    const begins = key.slice(0, 4);
    const made = { id, name: 'Leak check', hash, begins, scopes: ['content:read' as const], mode, days: 1 };
    await insertApiKey(pool(), { ...made, madeBy: memberId });
  }
  return { id, key };
}

const askApi = (key: string, viewpoint: string, path: string): Promise<Answer> =>
  fetched(`${path}${path.includes('?') ? '&' : '?'}as=${encodeURIComponent(viewpoint)}`, {
    authorization: `Bearer ${key}`,
  });

/** Requests a page as a viewpoint would. It is marked as a prefetch, so that no free read is spent. */
const ask = ({ browser }: Actor, viewpoint: string, path: string): Promise<Answer> =>
  fetched(
    path,
    viewpoint === 'visitor'
      ? {}
      : { cookie: `${cookieName('session')}=${browser?.session ?? ''}; ${cookieName('look')}=${viewpoint}` },
  );

async function fetched(path: string, headers: Record<string, string>): Promise<Answer> {
  try {
    const response = await fetch(new URL(path, config().SITE_URL), {
      headers: { ...headers, 'sec-purpose': 'prefetch', 'user-agent': 'Nest Key leak check' },
      redirect: 'manual',
      signal: AbortSignal.timeout(20_000),
    });
    return { status: response.status, text: (await response.text()).slice(0, 3_000_000) };
  } catch {
    return { status: 0, text: '' };
  }
}

function findingsIn(
  { path, kind, item }: CheckedAddress,
  viewpoint: string,
  words: ClosedWords,
  { status, text }: Answer,
): Finding[] {
  const finding = (what: Finding['kind'], of: string | null, evidence: string): Finding => ({
    kind: what,
    path,
    viewpoint,
    item: of,
    evidence,
  });
  const decided = item === null ? undefined : words.items.get(item);
  if (status === 0 || status >= 500) return [finding('failed', item, String(status))];
  if (kind === 'file') {
    if (!decided || status < 400 === decided.isOpen) return [];
    return [finding(decided.isOpen ? 'shut' : 'words', item, String(status))];
  }
  const leaked = phrasesFound(text, words.phrases).map(({ phrase, of }) => finding('words', of, phrase));
  const shown = words.hidden
    .filter(([address, id]) => id !== item && new RegExp(`${escaped(address)}(?![\\w/-])`).test(text))
    .map(([address, id]) => finding('hidden', id, address));
  const isMissing =
    kind === 'item' &&
    decided?.isOpen &&
    decided.phrase !== null &&
    phrasesFound(text, new Map([[decided.phrase, item ?? '']])).length === 0;
  return [...leaked, ...shown, ...(isMissing ? [finding('shut', item, String(status))] : [])];
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
