import { endOfDate, startOfDate } from '../calendar';
import { isBefore, type Instant, type LocalDate } from '../instants';
import type { PersonFacts } from './facts';

/** A time in which everyone reads as holders of a tier do; all of the last date too. */
export type OpenWeek = { tier: string; from: LocalDate; until: LocalDate };

/** The same, from its first instant until before another. `paid`: whether holding the tier is paying. */
export type WeekTimes = { tier: string; paid: boolean; from: Instant; to: Instant };

export const timesOf = ({ tier, from, until }: OpenWeek, paid: boolean, zone: string): WeekTimes => ({
  tier,
  paid,
  from: startOfDate(from, zone),
  to: endOfDate(until, zone),
});

export const isOn = ({ from, to }: WeekTimes, now: Instant): boolean =>
  !isBefore(now, from) && isBefore(now, to);

/** A person as one who holds the tier since the week began, while it lasts. What they hold already stays. */
export function asHolder(person: PersonFacts, week: WeekTimes, now: Instant): PersonFacts {
  if (!isOn(week, now) || person.tiers.some(({ tier }) => tier === week.tier)) return person;
  return { ...person, tiers: [...person.tiers, { tier: week.tier, since: week.from, paid: week.paid }] };
}
