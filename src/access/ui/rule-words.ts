import { refKey, type Cover, type Edge, type Opener, type Rule } from '@/core/access/rule';
import { everyWords, lengthWords } from '@/words/offers';
import { plainWords } from '@/words/desk';
import { desk } from '@/words/desk';

/** Names for what rules speak of, by kind and id: "tier:observer". */
export type Names = Record<string, string>;

const nameOf = (ref: { kind: string; id: string }, names: Names): string => names[refKey(ref)] ?? ref.id;

export function coverWords(cover: Cover, names: Names): string {
  switch (cover.kind) {
    case 'item':
      return `“${nameOf(cover, names)}”`;
    case 'under':
      return desk('desk-access.and-all-below-it', { id: nameOf({ kind: 'item', id: cover.id }, names) });
    case 'path':
      return desk('desk-access.the-address', { pattern: cover.pattern });
    case 'category':
      return desk('desk-access.the-category', { id: nameOf(cover, names) });
    case 'tag':
      return desk('desk-access.what-is-tagged', { id: nameOf(cover, names) });
    case 'type':
      return cover.id === 'page'
        ? desk('desk-access.all-pages-inline')
        : cover.id === 'post'
          ? desk('desk-access.all-posts-inline')
          : desk('desk-access.all-of-the-kind', { id: nameOf(cover, names) });
    case 'site':
      return desk('desk-access.the-whole-site-inline');
  }
}

function edgeWords(edge: Edge, edgeIs: 'from' | 'until', names: Names): string {
  if ('on' in edge)
    return desk(edgeIs === 'from' ? 'desk-access.from-date' : 'desk-access.until-date', { date: edge.on });
  const length = lengthWords(edge.after, plainWords);
  if (edge.since === 'held' && edge.of)
    return desk(edgeIs === 'from' ? 'desk-access.from-after-of' : 'desk-access.until-after-of', {
      length,
      of: nameOf(edge.of, names),
    });
  return desk(edgeIs === 'from' ? 'desk-access.from-after' : 'desk-access.until-after', {
    length,
    since: edge.since,
  });
}

/** When a line of a rule lets people in; '' where it does so at once and for good. */
export function whenWords(line: Opener, names: Names): string {
  return [
    line.opens && edgeWords(line.opens, 'from', names),
    line.closes && edgeWords(line.closes, 'until', names),
  ]
    .filter(Boolean)
    .join(', ');
}

export function whoWords({ who }: Pick<Opener, 'who'>, names: Names): string {
  switch (who.kind) {
    case 'everyone':
      return desk('desk-access.everyone-inline');
    case 'signed-in':
      return desk('desk-access.everyone-who-is-signed-in');
    case 'paying':
      return desk('desk-access.everyone-who-pays-inline');
    case 'group':
      return desk('desk-access.the-group', { name: nameOf(who, names) });
    case 'pass':
      return desk('desk-access.the-pass', { name: nameOf(who, names) });
    case 'tier':
    case 'member':
      return nameOf(who, names);
    case 'staff':
      return who.id === undefined
        ? desk('desk-access.staff')
        : desk('desk-access.staff-of-role', { role: who.id });
  }
}

/** How the pages that a rule covers open one by one: "one page every 2 weeks, the first at once". */
export const seriesWords = ({ each, firstAtOnce }: Pick<Rule, 'each' | 'firstAtOnce'>): string =>
  each
    ? desk('desk-access.one-page-every', {
        every: everyWords(each, plainWords),
        first: firstAtOnce ? 'yes' : 'no',
      })
    : '';

/** A rule by what it covers, for one that was given no name: "the category Guides". */
export const ruleNameFrom = (covers: Cover[], names: Names): string => {
  const words = covers.map((cover) => coverWords(cover, names)).join(', ');
  return words.slice(0, 1).toUpperCase() + words.slice(1, 80);
};

export const isOn = (rule: Pick<Rule, 'on'>): boolean => rule.on !== false;
