import type { Cover, Edge, Opener, Rule } from '@/core/access/rule';
import { lengthWords } from '@/words/offers';
import { plainWords } from '@/words/desk';

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
      return `“${names.items.get(cover.id) ?? cover.id}” and all below it`;
    case 'path':
      return `the address ${cover.pattern}`;
    case 'category':
      return `the category ${names.categories.get(cover.id) ?? cover.id}`;
    case 'tag':
      return `what is tagged ${cover.id}`;
    case 'type':
      return cover.id === 'page'
        ? 'all pages'
        : cover.id === 'post'
          ? 'all posts'
          : `all of the kind ${cover.id}`;
    case 'site':
      return 'the whole site';
  }
}

function edgeWords(edge: Edge, verb: string): string {
  if ('on' in edge) return `${verb} ${edge.on}`;
  const since = { held: 'getting it', joined: 'joining', published: 'publishing' }[edge.since];
  return `${verb} ${lengthWords(edge.after, plainWords)} after ${since}`;
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
      return 'everyone';
    case 'signed-in':
      return 'everyone who is signed in';
    case 'paying':
      return 'everyone who pays';
    case 'tier':
      return names.tiers.get(who.id) ?? who.id;
    case 'staff':
      return 'staff';
    default:
      return `${who.kind} ${who.id}`;
  }
}

export const isOn = (rule: Pick<Rule, 'on'>): boolean => rule.on !== false;
