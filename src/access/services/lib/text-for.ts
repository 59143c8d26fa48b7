import type { Prose } from '@/core/content/prose';
import { readingMinutes, wordCount } from '@/core/content/prose';
import { withoutSections } from '@/core/content/sections';
import {
  firstParagraphs,
  firstWords,
  untilMarker,
  type Teaser,
  type TeaserSetting,
} from '@/core/content/teaser';
import type { Item } from '@/content/store/items';
import type { Doorstep } from '@/core/access/doorstep';
import { doorstepAt } from './doorstep-at';
import { isLetIn, judge, openBody, type Reader } from './reader';

export type TeaserParts = { summary: string; teaser: Prose | null; minutesLeft: number };

/** What of an item may be seen at its doorstep: the one place that cuts. */
export function teaserOf(item: Item, { teaser }: Doorstep): TeaserParts {
  const summary = teaser.kind === 'none' ? '' : item.summary;
  const whole = { summary, teaser: null, minutesLeft: readingMinutes(wordCount(item.body)) };
  if (teaser.kind === 'none' || teaser.kind === 'summary') return whole;
  // Where the item is closed, so is every section in it.
  const open = withoutSections(item.body);
  const { document, wordsLeft } = cut(open, teaser);
  // A teaser that would be the whole item is no teaser: the item is closed, so the body stays here.
  if (wordsLeft === 0 || document.content.length === 0) return whole;
  return { summary, teaser: document, minutesLeft: readingMinutes(wordsLeft) };
}

function cut(open: Prose, teaser: Exclude<TeaserSetting, { kind: 'none' | 'summary' }>): Teaser {
  if (teaser.kind === 'marker') return untilMarker(open);
  return teaser.kind === 'words' ? firstWords(open, teaser.count) : firstParagraphs(open, teaser.count);
}

/** What of an item's text a person is shown: what is open of it, or its teaser; null where that is nothing. */
export async function textFor(reader: Reader, item: Item): Promise<Prose | null> {
  const decision = (await judge(reader, [item]))(item.id);
  return isLetIn(decision)
    ? openBody(reader, item)
    : teaserOf(item, (await doorstepAt(reader, item, decision)).doorstep).teaser;
}
