import type { Cover, Edge, Opener, Rule } from '@/core/access/rule';
import { lengthWords } from '@/words/offers';
import { plainWords } from '@/words/desk';
import { desk } from '@/words/desk';

/** Names for the ids that rules speak of. */
export type Names = {
  items: Map<string, string>;
  categories: Map<string, string>;
  tiers: Map<string, string>;
};

export function coverWords(cover: Cover, names: Names): string {
  switch (cover.kind) {
    case 'item':
      return `“${names.items.get(cover.id) ?? cover.id}”`;
    case 'under':
      return desk('desk-access.and-all-below-it', { id: names.items.get(cover.id) ?? cover.id });
    case 'path':
      return desk('desk-access.the-address', { pattern: cover.pattern });
    case 'category':
      return desk('desk-access.the-category', { id: names.categories.get(cover.id) ?? cover.id });
    case 'tag':
      return desk('desk-access.what-is-tagged', { id: cover.id });
    case 'type':
      return cover.id === 'page'
        ? desk('desk-access.all-pages-inline')
        : cover.id === 'post'
          ? desk('desk-access.all-posts-inline')
          : desk('desk-access.all-of-the-kind', { id: cover.id });
    case 'site':
      return desk('desk-access.the-whole-site-inline');
  }
}

function edgeWords(edge: Edge, edgeIs: 'from' | 'until'): string {
  if ('on' in edge)
    return desk(edgeIs === 'from' ? 'desk-access.from-date' : 'desk-access.until-date', { date: edge.on });
  const length = lengthWords(edge.after, plainWords);
  return desk(edgeIs === 'from' ? 'desk-access.from-after' : 'desk-access.until-after', {
    length,
    since: edge.since,
  });
}

/** When a line of a rule lets people in; '' where it does so at once and for good. */
export function whenWords(line: Opener): string {
  return [line.opens && edgeWords(line.opens, 'from'), line.closes && edgeWords(line.closes, 'until')]
    .filter(Boolean)
    .join(', ');
}

export function whoWords(line: Opener, names: Names): string {
  const { who } = line;
  switch (who.kind) {
    case 'everyone':
      return desk('desk-access.everyone-inline');
    case 'signed-in':
      return desk('desk-access.everyone-who-is-signed-in');
    case 'paying':
      return desk('desk-access.everyone-who-pays-inline');
    case 'tier':
      return names.tiers.get(who.id) ?? who.id;
    case 'staff':
      return desk('desk-access.staff');
    default:
      return `${who.kind} ${who.id}`;
  }
}

export const isOn = (rule: Pick<Rule, 'on'>): boolean => rule.on !== false;
