import { z } from 'zod';
import { NO_COMMENTS } from '@/core/content/comments';
import { commentSettingsSchema } from '@/core/content/comments-schema';
import { saveCategory, arrangeCategories } from '@/content/services/categories';
import { saveMenuEntry, arrangeMenu, removeMenuEntry } from '@/content/services/menu';
import { savePageRole } from '@/content/services/page-roles';
import { arrangeTags, renameTag } from '@/content/services/tags';
import { listCategories } from '@/content/store/categories';
import { listKinds, saveKind } from '@/content/store/kinds';
import { listMenuEntries } from '@/content/store/menus';
import { listPageRoles } from '@/content/store/page-roles';
import { addTags, listTags } from '@/content/store/tags';
import { saveRule } from '@/access/services/save-rule';
import { saveDoorstepOfItem, saveSiteDoorstep } from '@/access/services/doorsteps';
import { saveMeter } from '@/access/services/meters';
import { savePass } from '@/access/services/passes';
import { saveAccessDefault } from '@/access/services/site-access';
import { listItemDoorsteps } from '@/access/store/doorsteps';
import { listMeters } from '@/access/store/meters';
import { listPasses } from '@/tiers/store/passes';
import { listGroups, saveGroup } from '@/people/store/groups';
import { listRules } from '@/access/store/rules';
import { saveTier } from '@/billing/services/save-tier';
import { saveTheme } from '@/desk/services/theme-settings';
import { reword } from '@/desk/services/wording';
import { saveJoinFields } from '@/tiers/services/save-join-fields';
import { arrangeTiers, saveLadder } from '@/tiers/services/save-ladder';
import { saveOffer } from '@/tiers/services/save-offer';
import { listJoinFields } from '@/tiers/store/join-fields';
import { saveProduct } from '@/tiers/services/products';
import { findProduct, listProducts } from '@/tiers/store/products';
import { inputAmount } from '@/core/money';
import { saveGeneral } from '@/desk/services/general-settings';
import { findOffer, listOffers } from '@/tiers/store/offers';
import { findTier, listLadders, listTiers } from '@/tiers/store/tiers';
import type { Actor } from '@/platform/actor';
import { refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';

/** The form of the file; it rises when what is in it means something else. */
export const FORMAT = 1;

const row = z.looseObject({ id: z.string().max(200) });
/** Each part is read by the use case that saves it; here only their outline is. */
export const siteJsonSchema = z.object({
  format: z.literal(FORMAT),
  kinds: z
    .array(
      z.object({
        id: z.string().regex(/^[a-z0-9-]{1,60}$/),
        name: z.string().max(40),
        plural: z.string().max(40),
        path: z.string().max(100).nullable(),
        comments: commentSettingsSchema.default(NO_COMMENTS),
      }),
    )
    .max(200)
    .default([]),
  categories: z
    .array(z.object({ id: z.string().max(200), name: z.string(), parentId: z.string().nullable() }))
    .max(2000)
    .default([]),
  tags: z
    .array(z.object({ id: z.string().max(200), name: z.string() }))
    .max(5000)
    .default([]),
  menu: z
    .array(row.extend({ parentId: z.string().nullable() }))
    .max(100)
    .default([]),
  pages: z
    .array(z.object({ role: z.string(), itemId: z.string() }))
    .max(50)
    .default([]),
  ladders: z.array(row).max(200).default([]),
  tiers: z.array(row).max(500).default([]),
  offers: z.array(row).max(2000).default([]),
  questions: z.array(z.unknown()).max(40).default([]),
  rules: z.array(row).max(2000).default([]),
  meters: z.array(row).max(500).default([]),
  passes: z.array(row).max(500).default([]),
  products: z
    .array(row.extend({ amount: z.number().int(), currency: z.string(), taxKindId: z.string().nullable() }))
    .max(500)
    .default([]),
  /** How people join. */
  joining: z
    .object({ way: z.string(), rhythm: z.string(), registerOfferId: z.string().nullable() })
    .optional(),
  groups: z
    .array(z.object({ id: z.string().min(1).max(200), name: z.string().min(1).max(60) }))
    .max(1000)
    .default([]),
  doorstep: z.unknown().optional(),
  doorsteps: z
    .array(z.object({ itemId: z.string(), doorstep: z.unknown() }))
    .max(5000)
    .default([]),
  accessDefault: z.unknown().optional(),
  theme: z.unknown().optional(),
  words: z.record(z.string(), z.string()).default({}),
});
export type SiteJson = z.output<typeof siteJsonSchema>;

/** Everything of the site that is no item: how it is arranged, what it sells, and who may read what. No money, no people. */
export async function readSiteJson(): Promise<Record<string, unknown>> {
  const site = await currentSite();
  const ladders = await listLadders(pool());
  const nameOf = (id: string | null): string => ladders.find((ladder) => ladder.id === id)?.name ?? '';
  const tiers = (await listTiers(pool())).filter(({ retiredAt }) => retiredAt === null);
  const sold = new Set(tiers.map(({ id }) => id));
  return {
    format: FORMAT,
    kinds: await listKinds(pool()),
    categories: (await listCategories(pool())).map(({ id, name, parentId }) => ({ id, name, parentId })),
    tags: await listTags(pool()),
    menu: await listMenuEntries(pool()),
    pages: await listPageRoles(pool()),
    ladders: ladders.map(({ id, name, creditUnused, waitDays, downAtOnce }) => ({
      id,
      name,
      creditUnused,
      waitDays,
      downAtOnce,
    })),
    tiers: tiers.map((tier) => ({
      id: tier.id,
      name: tier.name,
      description: tier.description,
      ladder: nameOf(tier.ladderId),
      keyCut: tier.keyCut,
      reference: tier.reference,
      pictureId: tier.pictureId,
      joinWords: tier.joinWords,
      welcomeWords: tier.welcomeWords,
      welcomeShown: tier.welcomeShown,
      welcomePath: tier.welcomePath,
      joining: tier.joining,
      onJoinPage: tier.onJoinPage,
      several: tier.several,
      onSaleFrom: tier.onSaleFrom,
      onSaleUntil: tier.onSaleUntil,
      places: tier.places,
    })),
    offers: (await listOffers(pool()))
      .filter(({ retiredAt, tierId }) => retiredAt === null && sold.has(tierId))
      .map(({ id, name, onSale, definition, holderPrices }) => ({
        id,
        name,
        onSale,
        definition,
        holderPrices: holderPrices.filter((price) => sold.has(price.tierId)),
      })),
    questions: await listJoinFields(pool()),
    rules: (await listRules(pool())).map(({ version: _, ...rule }) => rule),
    meters: (await listMeters(pool())).map(({ version: _, ...meter }) => meter),
    // Without the passwords that give them: those are secrets.
    passes: (await listPasses(pool())).map(({ version: _, hasPassword: _2, ...pass }) => pass),
    products: (await listProducts(pool()))
      .filter(({ tierId }) => tierId === null || sold.has(tierId))
      .map(({ id, name, passId, tierId, holderPrices, ...product }) => ({
        id,
        name,
        sells: passId === null ? `tier:${tierId}` : `pass:${passId}`,
        amount: product.amount,
        currency: product.currency,
        lasts: product.lasts,
        mostDevices: product.mostDevices,
        taxKindId: product.taxKindId,
        onSale: product.onSale,
        holderPrices: holderPrices.filter((price) => sold.has(price.tierId)),
      })),
    joining: { way: site.joining, rhythm: site.joinRhythm, registerOfferId: site.registerOfferId },
    groups: await listGroups(pool()),
    doorstep: site.doorstep,
    doorsteps: (await listItemDoorsteps(pool())).map(({ version: _, ...one }) => one),
    accessDefault: site.accessDefault,
    theme: site.theme,
    words: site.reworded,
  };
}

/** What went wrong with a part: its name, and the codes of its problems. */
export type PartProblem = { part: string; code: string };

/** Before the items come: what they are sorted into, and what is sold, which their sections and buttons name. */
export async function bringInBefore(actor: Actor, json: SiteJson): Promise<PartProblem[]> {
  const found: PartProblem[] = [];
  const say = saying(found);
  for (const kind of json.kinds) await saveKind(pool(), kind);
  for (const { id, name, parentId } of json.categories)
    await say(`category ${id}`, saveCategory(actor, { id, name, parentId }));
  await say(
    'categories',
    arrangeCategories(
      actor,
      json.categories.map(({ id }) => id),
    ),
  );
  await addTags(pool(), json.tags);
  for (const tag of json.tags) await say(`tag ${tag.id}`, renameTag(actor, tag));
  await say(
    'tags',
    arrangeTags(
      actor,
      json.tags.map(({ id }) => id),
    ),
  );
  for (const { id, pictureId, ...tier } of json.tiers) {
    const isNew = !(await findTier(pool(), id));
    await say(
      `tier ${id}`,
      saveTier(actor, { ...tier, id, isNew, ...(typeof pictureId === 'string' && { pictureId }) }),
    );
  }
  const ladders = await listLadders(pool());
  for (const ladder of json.ladders)
    if (ladders.some(({ id }) => id === ladder.id))
      await say(`ladder ${ladder.id}`, saveLadder(actor, ladder));
  await bringInOrder(actor, json, say);
  for (const offer of json.offers) await say(`offer ${offer.id}`, bringInOffer(actor, offer));
  if (json.questions.length > 0) await say('questions', saveJoinFields(actor, json.questions));
  return found;
}

/** The tiers of each ladder, and those on none, in the order that they came in; any others follow. */
async function bringInOrder(actor: Actor, json: SiteJson, say: Say): Promise<void> {
  const order = json.tiers.map(({ id }) => id);
  const place = (id: string): number => (order.includes(id) ? order.indexOf(id) : order.length);
  const tiers = await listTiers(pool());
  for (const ladderId of new Set(tiers.map((tier) => tier.ladderId))) {
    const there = tiers.filter((tier) => tier.ladderId === ladderId).map(({ id }) => id);
    const tierIds = [...there].sort((a, b) => place(a) - place(b));
    await say('tiers', arrangeTiers(actor, { ladderId, tierIds }));
  }
}

/** An offer that is there already as it is keeps its version. */
async function bringInOffer(actor: Actor, offer: { id: string }): Promise<Result<unknown>> {
  const known = await findOffer(pool(), offer.id);
  return saveOffer(actor, known ? { ...offer, seenVersion: known.version } : offer);
}

/** What is sold once is sold in the site's own currency; a kind for tax that the site does not have is left out. */
async function bringInProduct(
  actor: Actor,
  { id, amount, currency, taxKindId, ...product }: SiteJson['products'][number],
): Promise<Result<unknown>> {
  const site = await currentSite();
  const known = await findProduct(pool(), id);
  if (currency !== (known?.currency ?? site.currency))
    return refusedField('currency', 'product.other-currency');
  return saveProduct(actor, {
    ...product,
    ...(known ? { id, version: known.version } : { id: null, newId: id }),
    amount: inputAmount(amount, currency, site.language),
    taxKindId: site.tax.kinds.some((kind) => kind.id === taxKindId) ? taxKindId : null,
  });
}

async function bringInJoining(
  actor: Actor,
  { way, rhythm, registerOfferId }: NonNullable<SiteJson['joining']>,
): Promise<Result<unknown>> {
  const { name, language, zone, currency } = await currentSite();
  return saveGeneral(actor, {
    name,
    language,
    zone,
    currency,
    joining: way,
    joinRhythm: rhythm,
    registerOfferId,
  });
}

/** After the items: what leads to them, and who may read them. */
export async function bringInAfter(actor: Actor, json: SiteJson): Promise<PartProblem[]> {
  const found: PartProblem[] = [];
  const say = saying(found);
  const groups = new Set((await listGroups(pool())).map(({ id }) => id));
  for (const group of json.groups) if (!groups.has(group.id)) await saveGroup(pool(), group);
  const meters = new Map((await listMeters(pool())).map((meter) => [meter.id, meter.version]));
  for (const meter of json.meters)
    await say(`meter ${meter.id}`, saveMeter(actor, { ...meter, version: meters.get(meter.id) ?? 0 }));
  const passes = new Map((await listPasses(pool())).map((pass) => [pass.id, pass.version]));
  for (const pass of json.passes)
    await say(`pass ${pass.id}`, savePass(actor, { ...pass, version: passes.get(pass.id) ?? 0 }));
  for (const product of json.products) await say(`product ${product.id}`, bringInProduct(actor, product));
  if (json.joining) await say('joining', bringInJoining(actor, json.joining));
  const rules = new Map((await listRules(pool())).map((rule) => [rule.id, rule.version]));
  for (const rule of json.rules)
    await say(`rule ${rule.id}`, saveRule(actor, { ...rule, version: rules.get(rule.id) ?? 0 }));
  const doorsteps = new Map((await listItemDoorsteps(pool())).map((one) => [one.itemId, one.version]));
  for (const { itemId, doorstep } of json.doorsteps) {
    const version = doorsteps.get(itemId) ?? 0;
    await say(`doorstep ${itemId}`, saveDoorstepOfItem(actor, { itemId, doorstep, version }));
  }
  if (json.doorstep !== undefined) await say('doorstep', saveSiteDoorstep(actor, json.doorstep));
  if (json.accessDefault !== undefined)
    await say('default', saveAccessDefault(actor, { accessDefault: json.accessDefault }));
  for (const { role, itemId } of json.pages) await say(`page ${role}`, savePageRole(actor, { role, itemId }));
  if (json.menu.length > 0) await bringInMenu(actor, json.menu, say);
  if (json.theme) await say('theme', saveTheme(actor, { theme: json.theme }));
  for (const [key, words] of Object.entries(json.words))
    await say(`words ${key}`, reword(actor, { key, words }));
  return found;
}

type Say = (part: string, answer: Promise<Result<unknown>>) => Promise<void>;

const saying =
  (found: PartProblem[]): Say =>
  async (part, answer) => {
    const result = await answer;
    if (!result.ok) for (const { code } of Object.values(result.problems)) found.push({ part, code });
  };

/** The menu is replaced: entries have no name by which an old one could be told from a new. */
async function bringInMenu(actor: Actor, menu: SiteJson['menu'], say: Say): Promise<void> {
  for (const { id, parentId } of await listMenuEntries(pool()))
    if (parentId === null) await say('menu', removeMenuEntry(actor, id));
  const ids = new Map<string, string>();
  for (const { id, parentId: _, ...entry } of menu) {
    const made = await saveMenuEntry(actor, entry);
    if (made.ok) ids.set(id, made.value.id);
    else await say('menu', Promise.resolve(made));
  }
  const places = menu.flatMap(({ id, parentId }) => {
    const own = ids.get(id);
    return own ? [{ id: own, parentId: parentId === null ? null : (ids.get(parentId) ?? null) }] : [];
  });
  await say('menu', arrangeMenu(actor, places));
}
