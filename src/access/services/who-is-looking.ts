import { readsAll } from '@/core/staff';
import { readViewpoint, writeViewpoint } from '@/core/access/viewpoint';
import { optionalDate } from '@/platform/form-fields';
import { nothing } from '@/platform/inputs';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { alikeUse, staffUse } from '@/platform/use';
import { viewerOf } from './lib/viewer';
import { viewpointFor } from './lib/viewpoints';
import { z } from 'zod';

/** Whether this viewpoint is signed in, and whose it is where staff look as someone else. */
export const whoIsLooking = alikeUse('who-is-looking', nothing, async (actor) => {
  const { person, lookingAs } = await viewerOf(actor);
  return done({ signedIn: person.signedIn, lookingAs });
});

const choiceSchema = z.object({
  /** A viewpoint, or "self". */
  as: z.string().max(200),
  /** A local date; empty: today. */
  on: optionalDate,
});

/** The viewpoint that staff who read everything may take, as it is written in a cookie; null for their own. */
export const chooseViewpoint = staffUse('look')(
  'choose-viewpoint',
  choiceSchema,
  async (actor, { as, on }): Promise<Result<string | null>> => {
    if (as === 'self') return done(null);
    const viewpoint = readViewpoint(as);
    if (!viewpoint) return refusedField('', 'viewpoint.unknown');
    if (!readsAll(await powersOf(actor))) return refusedField('', 'viewpoint.not-allowed');
    const written = writeViewpoint({ ...viewpoint, on });
    return (await viewpointFor(actor, await currentSite(), written))
      ? done(written)
      : refusedField('', 'viewpoint.unknown');
  },
);
