import { readsAll } from '@/core/staff';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { publicUse, staffUse } from '@/platform/use';
import { viewerOf } from './lib/viewer';
import { z } from 'zod';
import { say } from '@/words/problems';

/** Whether this viewpoint is signed in, and whose it is where staff look as someone else. */
export const whoIsLooking = publicUse('who-is-looking', nothing, async (actor) => {
  const { person, lookingAs } = await viewerOf(actor);
  return done({ signedIn: person.signedIn, lookingAs });
});

const viewpointSchema = z
  .string()
  .regex(/^(self|visitor|signed-in|tier:[a-z0-9-]{1,100})$/, say('viewpoint.unknown'));

/** The viewpoint that staff who read everything may take; null for their own. */
export const chooseViewpoint = staffUse('look')(
  'choose-viewpoint',
  viewpointSchema,
  async ({ staffRole }, as) => Promise.resolve(done(as === 'self' || !readsAll(staffRole) ? null : as)),
);
