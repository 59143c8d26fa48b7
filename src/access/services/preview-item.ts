import { z } from 'zod';
import { mayWrite, WRITES } from '@/core/staff';
import type { Meeting } from '@/core/access/doorstep';
import { articleSchema, type Prose } from '@/core/content/prose';
import { wordCount } from '@/core/content/prose';
import type { Instant } from '@/core/instants';
import { findItem, type Item } from '@/content/store/items';
import { idIfKnown } from '@/platform/form-fields';
import { slug } from '@/platform/inputs';
import { done, missing, type Result } from '@/platform/result';
import { powersOf } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { readViewpoints } from './lib/access-map';
import { openingTiers, joinableTiers } from './lib/opening-tiers';
import { askerAt, doorstepAt } from './lib/doorstep-at';
import { isLetIn, judge, openBody, questionOf } from './lib/reader';
import { shownIn, type Shown } from './lib/shown';
import { teaserOf } from './lib/text-for';

const previewSchema = z.object({
  id: idIfKnown,
  type: slug,
  title: z.string().max(200),
  summary: z.string().max(400),
  body: articleSchema,
  /** The id of a viewpoint of the access map: "visitor", "signed-in", or a tier. */
  as: z.string().min(1).max(200),
});

export type PreviewedItem = {
  title: string;
  /** Whether the viewpoint is signed in. */
  isMember: boolean;
  summary: string;
  /** What is open of the text, or its teaser; null where that is nothing. */
  text: Prose | null;
  shown: Shown;
  /** Null where they are let in. */
  doorstep: { opensAt: Instant | null; minutesLeft: number; meeting: Meeting; tiers: string[] } | null;
};

/** An item that is not yet saved: where it would be is not known, so rules for its kind and for the site cover it. */
const unsaved = (type: string): Item => ({
  id: 'new',
  type,
  path: `/${type}/new`,
  parentId: null,
  ancestors: [],
  categories: [],
  ownCategories: [],
  tags: [],
  title: '',
  summary: '',
  author: '',
  position: 0,
  system: false,
  pictureId: null,
  pictureAlt: '',
  publishedAt: null,
  wasPublishedAt: null,
  commentsOn: null,
  trashedAt: null,
  words: 0,
  updatedAt: '1970-01-01T00:00:00Z',
  version: 0,
  body: { type: 'doc', content: [] },
  target: null,
});

/** What someone would be shown of an item as it is being written, as if it were published; decided as on the site itself. */
export const previewItem = staffUse(...WRITES)(
  'preview-item',
  previewSchema,
  async (actor, { id, type, title, summary, body, as }): Promise<Result<PreviewedItem>> => {
    const saved = id ? await findItem(pool(), id) : unsaved(type);
    const view = await readViewpoints();
    const viewpoint = view.viewpoints.find((one) => one.id === as);
    if (!saved || !viewpoint || (id && !mayWrite(await powersOf(actor), saved))) return missing();
    const reader = { ...view.reader, person: viewpoint.person };
    const named = { title, isMember: reader.person.signedIn };
    const publishedAt = saved.publishedAt ?? reader.now;
    const item = { ...saved, summary, body, publishedAt, words: wordCount(body) };
    const decision = (await judge(reader, [item]))(item.id);
    if (isLetIn(decision)) {
      const text = openBody(reader, item);
      return done({ ...named, summary, text, shown: await shownIn(reader, text), doorstep: null });
    }
    const { doorstep } = await doorstepAt(reader, item, decision);
    const meeting = doorstep.meets[await askerAt(reader, item, decision)];
    const { teaser, summary: told, minutesLeft } = teaserOf(item, doorstep);
    const opening = openingTiers(questionOf(reader, item), await joinableTiers(reader));
    return done({
      ...named,
      summary: told,
      text: teaser,
      shown: await shownIn(reader, teaser ?? { type: 'doc', content: [] }),
      doorstep: {
        opensAt: decision.state === 'later' ? (decision.opensAt ?? null) : null,
        minutesLeft,
        meeting,
        tiers: opening.map(({ tier }) => tier.name),
      },
    });
  },
);
