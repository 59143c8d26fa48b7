import type { Instant } from '@/core/instants';
import type { OpenTopic } from '@/core/mail-topics';
import type { Letter } from '@/members/store/letters';
import type { MemberFilter } from '@/members/store/member-lists';
import type { Site } from '@/platform/store/site';
import { memberFilterOf, memberFilterSchema } from './member-filter';

/** The topic by which its readers turn a letter off. */
export const topicOf = ({ kind }: Pick<Letter, 'kind'>): OpenTopic => (kind === 'post' ? 'posts' : 'letters');

/** The members to whom a letter goes: those of its list who get mails of its topic. */
export const filterOfLetter = (
  letter: Pick<Letter, 'kind' | 'filter'>,
  { zone }: Site,
  now: Instant,
): MemberFilter => ({
  ...memberFilterOf(memberFilterSchema.parse(letter.filter), now, zone),
  gets: topicOf(letter),
});
