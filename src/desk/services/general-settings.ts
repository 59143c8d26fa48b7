import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { ASKERS, type Asker } from '@/core/access/asker';
import type { Doorstep } from '@/core/access/doorstep';
import { isZone } from '@/core/instants';
import { isCurrency } from '@/core/money';
import { JOINING } from '@/core/tiers/joining';
import { rhythmsToChoose } from '@/core/offers/comparison';
import { searchLanguageOf } from '@/content/services/lib/search-language';
import { setSearchLanguage } from '@/content/store/save-items';
import { offeredTiers } from '@/checkout/services/lib/offered-tiers';
import { siteNow } from '@/platform/clock';
import { config } from '@/platform/config';
import { nothing } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { setDoorstep, setGeneral, type Site } from '@/platform/store/site';
import { listTiers } from '@/tiers/store/tiers';
import { listOffers } from '@/tiers/store/offers';
import { staffUse } from '@/platform/use';
import { isLanguage, LANGUAGES, type Language } from '@/words/languages';
import { say } from '@/words/problems';
import { meetsIn } from '@/words/doorsteps';
import { originalOf } from '@/words/words';

const bySettings = staffUse('change settings');

/** What the site is called, where it is, and how it writes. */
export const generalSettings = bySettings('general-settings', nothing, async () => {
  const site = await currentSite();
  const { name, language, zone, currency, joinRhythm, joining, registerOfferId } = site;
  const offered = await offeredTiers(site);
  return done({
    name,
    language,
    languages: Object.entries(LANGUAGES),
    zone,
    zones: Intl.supportedValuesOf('timeZone'),
    currency,
    currencies: Intl.supportedValuesOf('currency'),
    address: config().SITE_URL,
    now: siteNow(site),
    joinRhythm,
    joining,
    registerOfferId,
    /** The free offers of which one can be what people get who register. */
    freeOffers: await freeOffers(),
    /** Between which the join page can switch. */
    rhythms: rhythmsToChoose(offered.map(({ offers }) => offers.map((offer) => offer.definition))),
  });
});

async function freeOffers(): Promise<{ id: string; name: string }[]> {
  const names = new Map(
    (await listTiers(pool())).filter(({ retiredAt }) => !retiredAt).map(({ id, name }) => [id, name]),
  );
  return (await listOffers(pool()))
    .filter(({ isPaid, onSale, tierId }) => !isPaid && onSale && names.has(tierId))
    .map(({ id, name, tierId }) => ({ id, name: `${names.get(tierId)}, ${name}` }));
}

const inputSchema = z.object({
  name: z.string().trim().min(1, say('site.no-name')).max(80),
  language: z.custom<Language>((text) => typeof text === 'string' && isLanguage(text), say('value.choose')),
  zone: z.string().refine(isZone, say('value.choose')),
  currency: z.string().refine(isCurrency, say('value.choose')),
  /** The rhythm with which the join page opens; '' for the shortest. */
  joinRhythm: z
    .string()
    .regex(/^(\d{1,3}-(hour|day|week|month|year))?$/, say('value.choose'))
    .optional(),
  /** How people can join at all. */
  joining: z.enum(JOINING).optional(),
  /** The free offer that people get who register; null: none. */
  registerOfferId: z.string().max(200).nullable().optional(),
});

export const saveGeneral = bySettings(
  'save-general',
  inputSchema,
  async (actor, input): Promise<Result<null>> => {
    const site = await currentSite();
    const { registerOfferId = site.registerOfferId } = input;
    if (registerOfferId !== null && !(await freeOffers()).some(({ id }) => id === registerOfferId))
      return refusedField('registerOfferId', 'value.choose');
    return transaction(async (db) => {
      await setGeneral(db, {
        ...input,
        joinRhythm: input.joinRhythm ?? site.joinRhythm,
        joining: input.joining ?? site.joining,
        registerOfferId,
      });
      await setDoorstep(db, doorstepIn(site, input.language));
      await setSearchLanguage(db, searchLanguageOf(input));
      await record(db, actor, siteNow(site), 'site settings changed', 'site', input);
      return done(null);
    });
  },
);

/** The doorstep after a change of language: a notice that nobody has reworded is said in the new one. */
function doorstepIn({ doorstep, language: before }: Site, language: Language): Doorstep {
  const [was, is] = [before, language].map((one) => meetsIn((key) => originalOf(key, one)));
  const isOriginal = (asker: Asker): boolean => isDeepStrictEqual(doorstep.meets[asker], was?.[asker]);
  const meets = Object.fromEntries(
    ASKERS.map((asker) => [asker, (isOriginal(asker) ? is : doorstep.meets)?.[asker]]),
  ) as Doorstep['meets'];
  return { ...doorstep, meets };
}
