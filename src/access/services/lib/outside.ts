import { decide, type Decision } from '@/core/access/decide';
import type { ItemFacts } from '@/core/access/facts';
import { outsideItem, outsidePaths, strictest } from '@/core/access/outside';
import type { OutsideSite } from '@/access/store/outside-sites';
import { config } from '@/platform/config';
import { questionOf, type Reader } from './reader';

/** Whether it is a folder on the host of the site itself, where its own session counts. */
export const isSameHost = ({ origin }: Pick<OutsideSite, 'origin'>): boolean =>
  origin === new URL(config().SITE_URL).origin;

/** The address on this site at which someone is let in to another, or told why not. */
export const doorOf = ({ id }: OutsideSite, raw: string, served: string): string =>
  `/outside/${encodeURIComponent(id)}?${new URLSearchParams({ to: raw, served }).toString()}`;

/** What is decided about a place outside, by the stricter of its two addresses; null where those cannot be read. */
export function judgeOutside(
  reader: Reader,
  { prefix }: OutsideSite,
  { raw, served }: { raw: string; served: string },
): { item: ItemFacts; decision: Decision } | null {
  const paths = outsidePaths(prefix, raw, served);
  if (!paths) return null;
  const judged = paths.map((path) => {
    const item = outsideItem(path);
    return { item, decision: decide(questionOf(reader, item)) };
  });
  return strictest(judged) ?? null;
}
