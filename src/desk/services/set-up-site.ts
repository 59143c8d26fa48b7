import { z } from 'zod';
import { isZone } from '@/core/instants';
import { isCurrency } from '@/core/money';
import { proseOf } from '@/core/content/prose';
import { makeLegalPages } from '@/content/services/lib/legal-page';
import { searchLanguageOf } from '@/content/services/lib/search-language';
import { saveItem, type ItemInput } from '@/content/store/save-items';
import { addMenuEntry } from '@/content/store/menus';
import { addRevision } from '@/content/store/revisions';
import { transaction } from '@/platform/store/db';
import { insertMember } from '@/people/store/members';
import { findSite, insertSite } from '@/platform/store/site';
import { SETUP } from '@/platform/actor';
import { realNow, siteNow } from '@/platform/clock';
import { MIN_PASSWORD } from '@/core/people/password';
import { hashPassword, MAX_PASSWORD } from '@/platform/passwords';
import { record } from '@/platform/record';
import { done, type Result, refusedField } from '@/platform/result';
import { systemUse } from '@/platform/use';
import { isLanguage, LANGUAGES } from '@/words/languages';
import { say } from '@/words/problems';
import { meetsIn } from '@/words/doorsteps';
import { wordsOf } from '@/words/words';

const inputSchema = z.object({
  name: z.string().trim().min(1, say('site.no-name')).max(80),
  zone: z.string().refine(isZone, 'is not a time zone; write it like Europe/London'),
  currency: z.string().refine(isCurrency, 'is not a currency; write it like GBP'),
  language: z
    .string()
    .refine(isLanguage, `is not a language; one of ${Object.keys(LANGUAGES).join(', ')}`)
    .default('en-GB'),
  ownerName: z.string().trim().min(1, say('site.no-owner')),
  ownerEmail: z.email().toLowerCase(),
  ownerPassword: z.string().min(MIN_PASSWORD, `needs at least ${MIN_PASSWORD} characters`).max(MAX_PASSWORD),
  senderAddress: z.email(),
  /** Milliseconds by which the rehearsal clock starts ahead of real time; below zero to rehearse a past. */
  clockAheadMs: z.number().int().default(0),
});

/** A page to fill in, so that the address of the site leads somewhere from the start. */
const FRONT_PAGE: Omit<ItemInput, 'title' | 'body' | 'publishedAt'> = {
  id: 'home',
  type: 'page',
  path: '/',
  parentId: null,
  summary: '',
  author: '',
  tags: [],
  target: null,
  pictureId: null,
  pictureAlt: '',
  wasPublishedAt: null,
  commentsOn: null,
  position: 0,
  categories: [],
};

/** Makes the site, in test mode, and its owner. Once only. */
export const setUpSite = systemUse(
  'set-up-site',
  inputSchema,
  async (_, input): Promise<Result<{ ownerId: string }>> => {
    const { ownerName, ownerEmail, ownerPassword, ...site } = input;
    const t = wordsOf({ language: site.language, zone: site.zone, reworded: {} });
    const passwordHash = await hashPassword(ownerPassword);
    return transaction(async (db) => {
      if (await findSite(db)) return refusedField('', 'site.exists');
      await insertSite(db, {
        ...site,
        mode: 'test',
        accessDefault: 'everyone',
        retryDays: [1, 3, 5, 7],
        graceDays: 7,
        senderName: site.name,
        doorstep: {
          teaser: { kind: 'words', count: 60 },
          meets: meetsIn(t),
          showSignIn: true,
          showTiers: true,
          button: null,
        },
      });
      const joinedAt = siteNow({ mode: 'test', clockAheadMs: site.clockAheadMs });
      const owner = await insertMember(db, {
        email: ownerEmail,
        name: ownerName,
        passwordHash,
        staffRole: 'owner',
        joinedAt,
        emailConfirmedAt: realNow(),
      });
      const front = {
        ...FRONT_PAGE,
        title: t('site.front-title', { site: site.name }),
        body: proseOf(t('site.front-empty')),
        publishedAt: joinedAt,
      };
      await saveItem(db, front, searchLanguageOf(site));
      await addRevision(db, front.id, owner.id, joinedAt);
      await addMenuEntry(db, {
        kind: 'kind',
        target: 'post',
        label: '',
        audience: 'everyone',
        look: 'link',
        parentId: null,
      });
      await makeLegalPages(db, { ...site, reworded: {} }, joinedAt);
      await record(db, SETUP, realNow(), 'site set up', 'site', { name: site.name });
      return done({ ownerId: owner.id });
    });
  },
);
