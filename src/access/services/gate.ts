import type { OpeningPass } from '@/core/access/would-open';
import { z } from 'zod';
import type { Asker } from '@/core/access/asker';
import { VISITOR } from '@/core/access/facts';
import { isPathHere } from '@/core/addresses';
import type { Instant } from '@/core/instants';
import {
  findOutsideSession,
  findOutsideSite,
  findOutsideSiteBy,
  insertEntry,
  insertOutsideSession,
  takeEntry,
  type OutsideSite,
} from '@/access/store/outside-sites';
import { listPassesOfBrowser } from '@/billing/store/holdings';
import { config } from '@/platform/config';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { done, missing, refused, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { hashToken, newToken } from '@/platform/tokens';
import { publicUse } from '@/platform/use';
import { problem } from '@/words/problems';
import { askerAt, doorstepAt, hasHeld } from './lib/doorstep-at';
import { joinableTiers, openingTiers, type OpeningTier } from './lib/opening-tiers';
import { openingPasses } from './lib/opening-passes';
import { doorOf, isSameHost, judgeOutside } from './lib/outside';
import { isLetIn, questionOf, readerFor, readerOf, type Reader } from './lib/reader';
import { carriedFacts, personFacts } from './lib/viewpoints';

const ENTRY_SECONDS = 60;
const SESSION_HOURS = 12;
const ENTRIES: Limit = { name: 'outside:enter', points: 120, seconds: 60 };

const address = z.string().max(4_000);
const gateSchema = z.object({
  /** What nginx alone knows. */
  secret: z.string().max(200),
  /** As the browser asked for it, and as nginx serves it. */
  raw: address,
  served: address,
  /** What the browser carries on another host. */
  cookie: z.string().max(200).optional(),
});

/** `sign-in`: signing in may open it; `doorstep`: it is closed to them. `to`: the whole address to lead them to. */
export type GateAnswer = { state: 'open' } | { state: 'sign-in' | 'doorstep'; to: string };

/** Whether nginx may hand out what a browser asks it for. Only who knows a secret of ours is answered at all. */
export const askGate = publicUse(
  'ask-gate',
  gateSchema,
  async (actor, asked): Promise<Result<GateAnswer>> => {
    const site = await findOutsideSiteBy(pool(), hashToken(asked.secret));
    if (!site) return refused({ '': problem('record.missing') }, 'forbidden');
    const found = isSameHost(site)
      ? { reader: await readerOf({ ...actor, look: undefined }), isKnown: actor.memberId !== null }
      : await readerOutside(site, asked.cookie);
    const judged = judgeOutside(found.reader, site, asked);
    if (judged && isLetIn(judged.decision)) return done({ state: 'open' });
    const door = doorOf(site, asked.raw, asked.served);
    const base = config().SITE_URL;
    if (found.isKnown) return done({ state: 'doorstep', to: base + door });
    // On another host it is only found out at the site itself who they are.
    if (!isSameHost(site)) return done({ state: 'sign-in', to: base + door });
    const member = { ...found.reader, person: { ...VISITOR, signedIn: true, joinedAt: found.reader.now } };
    const signedIn = judgeOutside(member, site, asked);
    return signedIn && isLetIn(signedIn.decision)
      ? done({ state: 'sign-in', to: `${base}/sign-in?to=${encodeURIComponent(door)}` })
      : done({ state: 'doorstep', to: base + door });
  },
);

/** Who asks on another host, as the cookie there says. */
async function readerOutside(
  site: OutsideSite,
  cookie: string | undefined,
): Promise<{ reader: Reader; isKnown: boolean }> {
  const known = cookie ? await findOutsideSession(pool(), hashToken(cookie), site.id) : undefined;
  if (!known) return { reader: await readerFor(VISITOR), isKnown: false };
  const here = await currentSite();
  const now = siteNow(here);
  if (known.memberId) {
    const person = await personFacts(here, known.memberId, now);
    return {
      reader: await readerFor(person ? carriedFacts(here, person) : VISITOR),
      isKnown: person !== null,
    };
  }
  const passes = known.passes ? await listPassesOfBrowser(pool(), known.passes, here.mode, now) : [];
  return { reader: await readerFor({ ...VISITOR, passes }), isKnown: false };
}

const doorSchema = z.object({ id: z.string().max(200), to: address, served: address });

/** A way in to a place outside, or the doorstep of one that is closed. */
export type OutsideDoor =
  | { kind: 'leads-on'; to: string }
  | {
      kind: 'doorstep';
      name: string;
      path: string;
      state: 'later' | 'ended' | 'closed';
      opensAt: Instant | null;
      asker: Asker;
      notice: string;
      button: { words: string; to: string } | null;
      showSignIn: boolean;
      tiers: OpeningTier[];
      hasHeld: boolean;
      passes: OpeningPass[];
    };

/** Where someone is led who wants into a place outside: on to it, by a way that is good once, or to its doorstep. */
export const outsideDoor = publicUse(
  'outside-door',
  doorSchema,
  async (actor, { id, to, served }): Promise<Result<OutsideDoor>> => {
    const site = await findOutsideSite(pool(), id);
    if (!site || !isPathHere(to)) return missing();
    const reader = await readerOf({ ...actor, look: undefined });
    const judged = judgeOutside(reader, site, { raw: to, served });
    if (!judged) return missing();
    const { item, decision } = judged;
    if (isLetIn(decision)) return done({ kind: 'leads-on', to: await wayIn(actor, site, to) });
    const { doorstep } = await doorstepAt(reader, item, decision);
    const asker = await askerAt(reader, item, decision);
    const met = doorstep.meets[asker];
    const question = questionOf(reader, item);
    return done({
      kind: 'doorstep',
      name: site.name,
      path: doorOf(site, to, served),
      state: decision.state as 'later' | 'ended' | 'closed',
      opensAt: decision.opensAt ?? null,
      asker,
      notice: met.kind === 'notice' ? met.words : '',
      button: doorstep.button,
      showSignIn: doorstep.showSignIn && actor.memberId === null,
      tiers: doorstep.showTiers ? openingTiers(question, await joinableTiers(reader)) : [],
      hasHeld: reader.person.tiers.length > 0 || (await hasHeld(reader)),
      passes: await openingPasses(question),
    });
  },
);

/** The address that lets in to an outside site. */
async function wayIn({ browser, address: caller }: Actor, site: OutsideSite, to: string): Promise<string> {
  if (isSameHost(site)) return site.origin + to;
  // Who comes too often is let in by what they have already, or not at all.
  if ((await spendPoint(ENTRIES, caller ?? 'unknown')) > 0) return site.origin + to;
  const { token, hash } = newToken();
  const session = browser?.session ? hashToken(browser.session) : null;
  const passes = browser?.passes ? hashToken(browser.passes) : null;
  await insertEntry(pool(), { hash, siteId: site.id, session, passes, returnTo: to }, ENTRY_SECONDS);
  return `${site.origin}/_nest/enter?token=${token}`;
}

const enterSchema = z.object({ secret: z.string().max(200), token: z.string().max(100) });

/** Lets someone in on another host, once for each way in. The answer is what their browser is to carry there, and where to lead them. */
export const enterOutside = publicUse(
  'enter-outside',
  enterSchema,
  async (
    _,
    { secret, token },
  ): Promise<Result<{ cookie: string; to: string; hours: number; isHttps: boolean }>> => {
    const site = await findOutsideSiteBy(pool(), hashToken(secret));
    if (!site || isSameHost(site)) return refused({ '': problem('record.missing') }, 'forbidden');
    return transaction(async (db) => {
      const entry = await takeEntry(db, hashToken(token), site.id);
      if (!entry) return missing();
      const cookie = newToken();
      await insertOutsideSession(db, { ...entry, hash: cookie.hash, siteId: site.id }, SESSION_HOURS);
      return done({
        cookie: cookie.token,
        to: entry.returnTo,
        hours: SESSION_HOURS,
        isHttps: site.origin.startsWith('https:'),
      });
    });
  },
);
