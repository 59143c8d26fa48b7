import type { z } from 'zod';
import {
  memberInput,
  membersInput,
  type memberFileOutput,
  type memberOutput,
  type membersOutput,
} from '@/core/api/schemas';
import { isBefore, type Instant } from '@/core/instants';
import { listPassesOf } from '@/billing/store/held-passes';
import { listHoldings } from '@/billing/store/holdings';
import { listOrdersOf } from '@/billing/store/outside-orders';
import { listSubscriptionsOf } from '@/billing/store/subscriptions';
import { listMembers, type MemberRow } from '@/members/store/member-lists';
import { findMember, findMemberByEmail } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { done, missing, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { keyUse } from '@/platform/use';
import { placeOf, placeText } from './lib/list-place';
import { toldSubscriptions } from './lib/told-subscriptions';

const told = ({ id, email, name, joinedAt, tiers }: MemberRow): z.input<typeof memberOutput> => ({
  id,
  email,
  name,
  joinedAt,
  tiers,
});

/** Members, who joined last first, a page at a time. */
export const apiMembers = keyUse('members:read')(
  'api-members',
  membersInput,
  async (_, { email, tier, after: written, size }): Promise<Result<z.input<typeof membersOutput>>> => {
    const site = await currentSite();
    const now = siteNow(site);
    const after = placeOf(written ?? '', 'joined');
    const named =
      email === undefined ? undefined : await findMemberByEmail(pool(), email.trim().toLowerCase());
    if (email !== undefined && !named) return done({ members: [], next: null });
    const filter = { ...(tier && { tier }), ...(named && { ids: [named.id] }) };
    // One more than is told says whether there is another page.
    const rows = await listMembers(pool(), site.mode, now, filter, { limit: size + 1, after });
    const shown = rows.slice(0, size);
    const last = shown.at(-1);
    return done({
      members: shown.map(told),
      next: rows.length > size && last ? placeText(last) : null,
    });
  },
);

/** A member with what they hold now, and why, and their subscriptions. */
export const apiMember = keyUse('members:read')(
  'api-member',
  memberInput,
  async (_, { id }): Promise<Result<z.input<typeof memberFileOutput>>> => {
    const site = await currentSite();
    const now = siteNow(site);
    const member = await findMember(pool(), id);
    if (!member || member.deletedAt) return missing();
    const orders = new Map(
      (await listOrdersOf(pool(), site.mode, member.id)).map((order) => [order.holdingId, order.number]),
    );
    const isHeld = (since: Instant, until: Instant | null): boolean =>
      !isBefore(now, since) && (until === null || isBefore(now, until));
    const tiers = (await listHoldings(pool(), member.id, site.mode)).filter(({ fromAt, untilAt }) =>
      isHeld(fromAt, untilAt),
    );
    const passes = (await listPassesOf(pool(), member.id)).filter(
      ({ mode, since, until }) => mode === site.mode && isHeld(since, until),
    );
    const by = <Why extends string>(holding: string, why: Why) => {
      const order = orders.get(holding);
      return order === undefined ? { by: why } : { by: 'order' as const, order };
    };
    return done({
      id: member.id,
      email: member.email,
      name: member.name,
      joinedAt: member.joinedAt,
      tiers: [...new Set(tiers.map(({ tierId }) => tierId))].sort(),
      isConfirmed: member.emailConfirmedAt !== null,
      isBlocked: member.blockedAt !== null,
      holdings: [
        ...tiers.map(({ id: holding, tierId, why, fromAt, untilAt }) => ({
          kind: 'tier' as const,
          item: tierId,
          ...by(holding, why),
          since: fromAt,
          until: untilAt,
        })),
        ...passes.map(({ id: holding, passId, why, since, until }) => ({
          kind: 'pass' as const,
          item: passId,
          ...by(holding, why === 'given' ? 'gift' : 'other'),
          since,
          until,
        })),
      ],
      subscriptions: await toldSubscriptions(await listSubscriptionsOf(pool(), member.id, site.mode)),
    });
  },
);
