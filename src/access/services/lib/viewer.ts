import { VISITOR, type PersonFacts } from '@/core/access/facts';
import type { Instant } from '@/core/instants';
import { readsAll } from '@/core/staff';
import { pool } from '@/platform/store/db';
import { heldTiers } from '@/billing/store/holdings';
import { findMember, type Member } from '@/people/store/members';
import type { Site } from '@/platform/store/site';
import { listOffers } from '@/tiers/store/offers';
import { findTier } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import type { Actor } from '@/platform/actor';

/** What access decisions know of a member at an instant: what is held in the site's mode. */
export async function personFacts(site: Site, member: Member, at: Instant): Promise<PersonFacts> {
  return {
    signedIn: true,
    id: member.id,
    joinedAt: member.joinedAt,
    tiers: await heldTiers(pool(), member.id, site.mode, at),
    passes: [],
    groups: [],
    staff: member.staffRole ?? undefined,
    readsAll: readsAll(member.staffRole),
  };
}

export type Viewer = { person: PersonFacts; lookingAs: string | null };

/**
 * Through whose eyes the site is seen: the person's own, or, for staff who read everything, a viewpoint they
 * chose ("visitor", "signed-in" or "tier:observer"). Nothing is written in anyone's name.
 */
export function viewerOf(actor: Actor): Promise<Viewer> {
  let known = viewers.get(actor);
  if (!known) viewers.set(actor, (known = findViewer(actor)));
  return known;
}

/** An actor lives as long as one request, in which the site is seen with the same eyes throughout. */
const viewers = new WeakMap<Actor, Promise<Viewer>>();

async function findViewer({ memberId, look }: Actor): Promise<Viewer> {
  const site = await currentSite();
  const member = memberId ? await findMember(pool(), memberId) : undefined;
  const now = siteNow(site);
  if (!member) return { person: VISITOR, lookingAs: null };
  if (look && readsAll(member.staffRole)) {
    const viewpoint = await viewpointOf(look, now);
    if (viewpoint) return viewpoint;
  }
  return { person: await personFacts(site, member, now), lookingAs: null };
}

async function viewpointOf(look: string, now: Instant): Promise<Viewer | null> {
  if (look === 'visitor') return { person: VISITOR, lookingAs: 'a visitor' };
  const signedIn: PersonFacts = { ...VISITOR, signedIn: true, joinedAt: now };
  if (look === 'signed-in') return { person: signedIn, lookingAs: 'a member without a tier' };
  const tier = look.startsWith('tier:') ? await findTier(pool(), look.slice(5)) : undefined;
  if (!tier) return null;
  const paid = (await listOffers(pool())).some((offer) => offer.tierId === tier.id && offer.isPaid);
  return {
    person: { ...signedIn, tiers: [{ tier: tier.id, since: now, paid }] },
    lookingAs: `a new holder of ${tier.name}`,
  };
}
