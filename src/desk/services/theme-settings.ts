import { z } from 'zod';
import { themeSchema } from '@/core/theme-schema';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transaction } from '@/platform/store/db';
import { setTheme } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { findPicture } from '@/content/store/pictures';

export const themeSettings = staffUse('change settings')('theme-settings', nothing, async () => {
  const { theme, markId, name } = await currentSite();
  return done({ theme, markId, name });
});

const inputSchema = z.object({
  theme: themeSchema,
  /** A picture that was uploaded; null for the site's key, left out to keep what it is. */
  markId: z.uuid().nullable().optional(),
});

/** How the site looks, from the next page on. */
export const saveTheme = staffUse('change settings')(
  'save-theme',
  inputSchema,
  async (actor, { theme, markId }): Promise<Result<null>> => {
    const site = await currentSite();
    return transaction(async (db) => {
      if (markId && !(await findPicture(db, markId))) return refusedField('mark', 'picture.unreadable');
      await setTheme(db, theme, markId === undefined ? site.markId : markId);
      await record(db, actor, siteNow(site), 'theme changed', 'site', { theme, markId });
      return done(null);
    });
  },
);
