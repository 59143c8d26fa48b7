import { VISITOR, type PersonFacts } from '@/core/access/facts';
import { readViewpoint, writeWho, type ViewpointWho } from '@/core/access/viewpoint';
import { addLength, localDate, startOfDate } from '@/core/calendar';
import { fromMs, toMs, type Instant, type LocalDate } from '@/core/instants';
import { findHolder } from '@/billing/store/holdings';
import { findGroup, listGroups } from '@/people/store/groups';
import { findMember } from '@/people/store/members';
import { may, powersOf as staffPowers, type StaffRole } from '@/core/staff';
import type { Actor } from '@/platform/actor';
import { powersOf } from '@/platform/site';
import { siteNow } from '@/platform/clock';
import type { Site } from '@/platform/store/site';
import { pool } from '@/platform/store/db';
import { keptOffers, keptTiers, keptPasses } from '@/tiers/services/lib/kept';
import type { Tier } from '@/tiers/store/tiers';

/** A viewpoint with what decisions know of it. `tier` and `name` are for those who look: a tier's name, a group's, a member's. */
export type SeenFrom = {
  /** As an address has it, without its day. */
  id: string;
  who: ViewpointWho;
  name: string;
  tier: Tier | null;
  person: PersonFacts;
};

/** What access decisions know of a member at an instant: what is held in the site's mode. Null where there is none. */
export async function personFacts(site: Site, memberId: string, at: Instant): Promise<PersonFacts | null> {
  const holder = await findHolder(pool(), memberId, site.mode, at);
  if (!holder) return null;
  const { id, joinedAt, staffRole, tiers, passes, groups } = holder;
  return {
    signedIn: true,
    id,
    joinedAt,
    tiers,
    passes,
    groups,
    ...staffFacts(site, staffRole),
  };
}

/** What decisions know of someone because they are staff. */
export function staffFacts(
  site: Site,
  role: StaffRole | null,
): Pick<PersonFacts, 'staff' | 'readsAll' | 'shutFrom'> {
  if (role === null) return {};
  const { readsAll, shutFrom } = staffPowers(role, site.roles);
  return { staff: role, readsAll, ...(shutFrom.length > 0 && { shutFrom }) };
}

/** What decisions know of someone as a member alone, whatever they may do as staff. */
export const withoutStaff = (facts: PersonFacts): PersonFacts => ({
  ...facts,
  staff: undefined,
  readsAll: false,
  shutFrom: undefined,
});

/** What is carried to another place by a cookie there: where the site asks staff for more than a password, what a member may read. */
export const carriedFacts = (site: Site, facts: PersonFacts): PersonFacts =>
  site.asksStaffProof ? withoutStaff(facts) : facts;

const newMember = (now: Instant): PersonFacts => ({ ...VISITOR, signedIn: true, joinedAt: now });

/** The viewpoints that a site has without naming a member: a visitor, a member without a tier, a new holder of each tier, each group, a visitor with each pass. */
export async function listViewpoints(now: Instant): Promise<SeenFrom[]> {
  const [tiers, groups, passes] = [await keptTiers(), await listGroups(pool()), await keptPasses()];
  const whos: ViewpointWho[] = [
    { kind: 'visitor' },
    { kind: 'signed-in' },
    ...tiers.map(({ id }) => ({ kind: 'tier' as const, id })),
    ...groups.map(({ id }) => ({ kind: 'group' as const, id })),
    ...passes.map(({ id }) => ({ kind: 'pass' as const, id })),
  ];
  const seen: SeenFrom[] = [];
  for (const who of whos) {
    const found = await seenFrom(who, now, null);
    if (found) seen.push(found);
  }
  return seen;
}

/** One viewpoint; null where what it names is not there. `site`: needed for a member, who is seen as they are. */
async function seenFrom(who: ViewpointWho, now: Instant, site: Site | null): Promise<SeenFrom | null> {
  const head = { id: writeWho(who), who, tier: null };
  switch (who.kind) {
    case 'visitor':
      return { ...head, name: '', person: VISITOR };
    case 'signed-in':
      return { ...head, name: '', person: newMember(now) };
    case 'tier': {
      const tier = (await keptTiers()).find(({ id }) => id === who.id);
      if (!tier) return null;
      const paid = (await keptOffers()).some((offer) => offer.tierId === tier.id && offer.isPaid);
      const person = { ...newMember(now), tiers: [{ tier: tier.id, since: now, paid }] };
      return { ...head, name: tier.name, tier, person };
    }
    case 'group': {
      const group = await findGroup(pool(), who.id);
      return group ? { ...head, name: group.name, person: { ...newMember(now), groups: [group.id] } } : null;
    }
    case 'pass': {
      const pass = (await keptPasses()).find(({ id }) => id === who.id);
      if (!pass) return null;
      return { ...head, name: pass.name, person: { ...VISITOR, passes: [{ pass: pass.id, since: now }] } };
    }
    case 'member': {
      const member = UUID.test(who.id) ? await findMember(pool(), who.id) : undefined;
      const person = site && member ? await personFacts(site, who.id, now) : null;
      return member && person ? { ...head, name: member.name || member.email, person } : null;
    }
  }
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** What is seen from a viewpoint, and when: on its day, at the time that it is now; null where there is no such viewpoint. */
export async function findViewpoint(
  site: Site,
  written: string,
): Promise<(SeenFrom & { at: Instant; on: LocalDate | null }) | null> {
  const viewpoint = readViewpoint(written);
  if (!viewpoint) return null;
  const now = siteNow(site);
  const at = viewpoint.on ? atTimeOf(now, viewpoint.on, site.zone) : now;
  // Who would get a tier today is seen on that day; a member as they are then.
  const found = await seenFrom(viewpoint.who, viewpoint.who.kind === 'member' ? at : now, site);
  return found && { ...found, at, on: viewpoint.on };
}

/** A viewpoint that staff name; one member's only for those who see members. */
export const viewpointFor = async (
  actor: Actor,
  site: Site,
  written: string,
): ReturnType<typeof findViewpoint> =>
  readViewpoint(written)?.who.kind === 'member' && !may(await powersOf(actor), 'see members')
    ? null
    : findViewpoint(site, written);

/** The instant on a local date that is as long after its start as `now` is after the start of today. */
export function atTimeOf(now: Instant, on: LocalDate, zone: string): Instant {
  const sinceStart = toMs(now) - toMs(startOfDate(localDate(now, zone), zone));
  const [start, end] = [startOfDate(on, zone), addLength(startOfDate(on, zone), { n: 1, unit: 'day' }, zone)];
  return fromMs(Math.min(toMs(start) + sinceStart, toMs(end) - 1));
}
