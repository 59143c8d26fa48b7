import { z } from 'zod';
import { endOfDate, startOfDate } from '@/core/calendar';
import { DAY_MS, fromMs, isLocalDate, toMs, type Instant } from '@/core/instants';
import { OPEN_TOPICS } from '@/core/mail-topics';
import type { MemberFilter } from '@/members/store/member-lists';
import { realNow } from '@/platform/clock';

export const MOST_TICKED = 200;

const text = (most: number) => z.string().trim().max(most).catch('').default('');
/** Days, as the address of a list has them. */
const days = z
  .string()
  .regex(/^[1-9]\d{0,3}$/)
  .catch('')
  .default('');
const day = z
  .string()
  .refine((typed): boolean => isLocalDate(typed))
  .catch('')
  .default('');

/** What narrows a list of members, as its address says it; what cannot be read narrows nothing. */
export const memberFilterSchema = z.object({
  q: text(200),
  tier: text(200),
  state: text(20),
  group: text(200),
  gateway: text(40),
  /** Local dates of the site. */
  joinedFrom: day,
  joinedTo: day,
  /** Left on this day or after it, and holds nothing now. */
  leftFrom: day,
  /** Seen within so many days, or not. */
  seen: days,
  unseen: days,
  /** The next charge is due within so many days. */
  due: days,
  account: z.enum(['blocked', 'unconfirmed', '']).catch('').default(''),
  /** Who gets the mails of a topic. */
  mails: z
    .enum([...OPEN_TOPICS, ''])
    .catch('')
    .default(''),
  /** The id of a question, a colon, and the answer to it. */
  answer: text(600),
  /** The ids of members who were ticked, separated by commas. Ids that cannot be read are nobody's, or a letter to a few would go to all. */
  ids: z
    .string()
    .max(MOST_TICKED * 37)
    .catch('unreadable')
    .default(''),
});
export type AskedFilter = z.output<typeof memberFilterSchema>;

/** `now`: the site's clock; when someone was seen is told by the real one. */
export function memberFilterOf(asked: AskedFilter, now: Instant, zone: string): MemberFilter {
  const {
    q,
    tier,
    state,
    group,
    gateway,
    joinedFrom,
    joinedTo,
    leftFrom,
    seen,
    unseen,
    due,
    account,
    mails,
    answer,
    ids,
  } = asked;
  const after = (from: Instant, count: number): Instant => fromMs(toMs(from) + count * DAY_MS);
  const colon = answer.indexOf(':');
  return {
    ...(q && { search: q }),
    ...(tier && { tier }),
    ...(state && { state }),
    ...(group && { group }),
    ...(gateway && { gateway }),
    ...(isLocalDate(joinedFrom) && { joinedFrom: startOfDate(joinedFrom, zone) }),
    ...(isLocalDate(joinedTo) && { joinedUntil: endOfDate(joinedTo, zone) }),
    ...(isLocalDate(leftFrom) && { leftSince: startOfDate(leftFrom, zone) }),
    ...(seen && { seenSince: after(realNow(), -Number(seen)) }),
    ...(unseen && { notSeenSince: after(realNow(), -Number(unseen)) }),
    ...(due && { dueBefore: after(now, Number(due)) }),
    ...(account && { account }),
    ...(mails && { gets: mails }),
    ...(ids && { ids: ids.split(',').filter((id) => z.uuid().safeParse(id).success) }),
    ...(colon > 0 && { answer: { field: answer.slice(0, colon), value: answer.slice(colon + 1) } }),
  };
}
