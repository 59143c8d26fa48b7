import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { parse } from 'csv-parse/sync';
import sharp from 'sharp';
import { z } from 'zod';
import { addLength, localDate } from '../../src/core/calendar';
import { toMs, type Instant } from '../../src/core/instants';
import { toDecimal } from '../../src/core/money';
import { SETUP, WORKER, type Actor } from '../../src/platform/actor';
import { realNow, siteNow } from '../../src/platform/clock';
import { cancelSubscription } from '../../src/billing/services/cancel-subscription';
import { saveJoinFields } from '../../src/tiers/services/save-join-fields';
import { connectGateway } from '../../src/billing/services/connect-gateway';
import { keepAccount } from '../../src/billing/services/lib/gateway-account';
import { addJoiningCode, makeCodes } from '../../src/tiers/services/codes';
import { importItem } from '../../src/content/services/import-items';
import { submitCheckout } from '../../src/checkout/services/submit-checkout';
import { moveClock } from '../../src/desk/services/move-clock';
import { runOneDue } from '../../src/billing/services/run-due';
import { saveCategory } from '../../src/content/services/categories';
import { saveOffer } from '../../src/tiers/services/save-offer';
import { savePicture } from '../../src/content/services/save-picture';
import { menuEditor } from '../../src/access/services/content-place';
import { removeMenuEntry, saveMenuEntry } from '../../src/content/services/menu';
import { saveMeter } from '../../src/access/services/meters';
import { savePass, setSharedPassword } from '../../src/access/services/passes';
import { addMembersToGroup, saveGroup } from '../../src/members/services/groups';
import { saveRule } from '../../src/access/services/save-rule';
import { saveTax } from '../../src/documents/services/save-tax';
import { saveTier } from '../../src/billing/services/save-tier';
import { setUpSite } from '../../src/desk/services/set-up-site';
import { pool } from '../../src/platform/store/db';
import { listSubscriptionsOf } from '../../src/billing/store/subscriptions';
import { findOffer } from '../../src/tiers/store/offers';
import { findMemberByEmail } from '../../src/people/store/members';
import type { Behaviour } from '../../stand-ins/curlew-cards/cards';
import { approveAtWallet, cardToken, consentOf, readTestKeys } from './stand-ins';
import type { Purse } from '../../stand-ins/dunlin-wallet/state';
import { gatewayById } from '../../src/billing/gateways';
import { connectTransfer } from '../../src/billing/services/connect-transfer';
import { importStatement } from '../../src/billing/services/import-statement';
import { returnFromWallet } from '../../src/checkout/services/pending-checkout';
import { settleAgreements } from '../../src/billing/services/settle-agreements';
import { loadArchive } from './load-archive';
import { must } from './must';
import { loadComments } from './load-comments';
import { lengthSchema } from '../../src/core/offers/offer-schema';
import { saveProduct } from '../../src/tiers/services/products';
import { loadLetters } from './load-letters';
import { asMember, personNamed } from './people';
import { currentSite } from '../../src/platform/site';
import { findCheckoutOf } from '../../src/billing/store/checkouts';
import { listAwaited } from '../../src/billing/store/payments';

export const OWNER = { name: 'Ines Halloway', email: 'ines@moor.example', password: 'lantern on the moor' };
export const MEMBER_PASSWORD = 'look up more often';

const ZONE = 'Europe/London';
/** How far back the rehearsed history of the demo begins. */
const DAYS = 120;

/** Answers that the demo's people give when they join. */
const SKIES = ['City', 'Town', 'Village', 'Truly dark'];

const read = (file: string): string => readFileSync(join('demo', file), 'utf8');
type DemoPass = { id: string; name: string; password: string };

/** The owner and an empty site. */
export async function loadEmptySite(clockAheadMs = 0): Promise<Actor> {
  const { ownerId } = must(
    await setUpSite(SETUP, {
      name: 'Lantern Moor',
      zone: ZONE,
      currency: 'GBP',
      clockAheadMs,
      senderAddress: 'post@moor.example',
      ownerName: OWNER.name,
      ownerEmail: OWNER.email,
      ownerPassword: OWNER.password,
    }),
    'the site',
  );
  return { kind: 'setup', memberId: ownerId, staffRole: 'owner' };
}

/** Tiers, pages, posts and rules of Lantern Moor, through the product's own importers; published some days before `now`. */
export async function loadContent(now: Instant): Promise<void> {
  const tierSchema = z.array(
    z.looseObject({
      id: z.string(),
      name: z.string(),
      description: z.string(),
      ladder: z.string().optional(),
      onJoinPage: z.boolean().optional(),
      /** A word that admits to joining, where joining is by code. */
      code: z.string().optional(),
      picture: z.string().optional(),
      offers: z.array(z.looseObject({ id: z.string(), name: z.string() })),
    }),
  );
  const tiers = tierSchema.parse(JSON.parse(read('tiers.json')));
  for (const { offers: _, code: __, picture, ...tier } of tiers) {
    const pictureId = picture ? await drawnPicture(picture) : undefined;
    must(await saveTier(SETUP, { onJoinPage: true, ...tier, pictureId }), tier.name);
  }
  // Offers may lead from one tier to another, so that every tier comes first.
  for (const { offers, code, ...tier } of tiers) {
    for (const { id, name, holderPrices, ...money } of offers)
      must(await saveOffer(SETUP, { id, name, holderPrices, definition: { ...money, tier: tier.id } }), id);
    if (code) must(await addJoiningCode(SETUP, { tierId: tier.id, code, mostUses: '', lastDay: '' }), code);
  }
  for (const { name, terms, words } of JSON.parse(read('codes.json')) as Record<string, unknown>[])
    must(await makeCodes(SETUP, { name, terms, words }), String(name));
  must(await saveTax(SETUP, JSON.parse(read('tax.json'))), 'tax');
  must(await saveJoinFields(SETUP, JSON.parse(read('questions.json'))), 'questions');
  for (const category of JSON.parse(read('categories.json')) as { id: string; name: string }[])
    must(await saveCategory(SETUP, category), category.name);
  const files = readdirSync('demo/content').filter((file) => file.endsWith('.md'));
  const withParent = (file: string): number => Number(/^parent:/m.test(read(`content/${file}`)));
  for (const file of files.sort((a, b) => withParent(a) - withParent(b))) {
    must(
      await importItem(SETUP, {
        id: file.replace(/\.md$/, ''),
        text: read(`content/${file}`),
        now,
        zone: ZONE,
      }),
      file,
    );
  }
  await loadMenu();
  for (const meter of JSON.parse(read('meters.json')) as { name: string }[])
    must(await saveMeter(SETUP, meter), meter.name);
  for (const { password, ...pass } of JSON.parse(read('passes.json')) as DemoPass[]) {
    must(await savePass(SETUP, pass), pass.name);
    must(await setSharedPassword(SETUP, { id: pass.id, password, endsOld: false }), pass.name);
  }
  must(await saveGroup(SETUP, { id: '', name: 'Committee' }), 'the committee');
  for (const rule of JSON.parse(read('rules.json')) as { name: string }[])
    must(await saveRule(SETUP, rule), rule.name);
}

/** The demo's menu, in place of the one that a new site has. */
async function loadMenu(): Promise<void> {
  for (const { id } of must(await menuEditor(SETUP), 'the menu').entries)
    must(await removeMenuEntry(SETUP, id), 'the menu');
  for (const entry of JSON.parse(read('menu.json')) as { target: string }[])
    must(await saveMenuEntry(SETUP, entry), entry.target);
}

/** A drawing of demo/pictures, kept as an owner’s upload would be. */
async function drawnPicture(name: string): Promise<string> {
  const png = await sharp(join('demo', 'pictures', `${name}.svg`))
    .png()
    .toBuffer();
  return must(await savePicture(SETUP, png), name).id;
}

const memberSchema = z.array(
  z.object({
    name: z.string(),
    email: z.string(),
    offer: z.string(),
    joined_days_ago: z.coerce.number(),
    /** A card of the card gateway, or a purse of the wallet, or a transfer that is sent or not. */
    pays_by: z.string(),
    code: z.string(),
    cancel_days_ago: z.string().transform((text) => (text === '' ? null : Number(text))),
  }),
);

/** What the site is paid through: the card gateway's key, and the accounts of the others. */
type Ways = { siteKey: string; wallet: string; transfer: string };

/** The bank's statement of a day: what is awaited of those who send their transfers comes, with its reference. */
async function sendTransfers(owner: Actor, accountId: string, senders: Set<string>): Promise<void> {
  const site = await currentSite();
  const awaited = await listAwaited(pool(), 'test');
  const lines: string[] = [];
  for (const payment of awaited) {
    const checkout = await findCheckoutOf(pool(), payment.subscriptionId ?? '');
    if (!checkout || !senders.has(checkout.email)) continue;
    const amount = toDecimal(payment.amount, payment.currency);
    lines.push(`${localDate(siteNow(site), ZONE)},${amount},${checkout.name},${payment.reference}`);
  }
  const csv = ['date,amount,payer,words', ...lines].join('\n');
  if (lines.length > 0) must(await importStatement(owner, { accountId, csv }), 'the statement');
}

/** Rehearses four months: people join, pay, fail to pay and cancel through the real services, day by day, until today. */
export async function loadHistory(
  owner: Actor,
  gatewayUrl: string,
  ways: Ways,
  tell: (done: number) => void,
): Promise<void> {
  const members = memberSchema.parse(parse(read('members.csv'), { columns: true }));
  const senders = new Set<string>();
  for (let daysAgo = DAYS; daysAgo >= 0; daysAgo--) {
    for (const member of members.filter((m) => m.joined_days_ago === daysAgo)) {
      const versionId = (await findOffer(pool(), member.offer))?.versionId;
      const [way, how] = member.pays_by.split(':') as [keyof Ways | '', string?];
      const isCard = way !== '' && how === undefined;
      const token = isCard ? await cardToken(gatewayUrl, ways.siteKey, way as Behaviour) : '';
      const input = {
        checkoutId: randomUUID(),
        offerId: member.offer,
        versionId,
        cardToken: token,
        accountId: way === 'wallet' || way === 'transfer' ? ways[way] : '',
        code: member.code,
        answers: { rules: 'yes', sky: SKIES[member.name.length % SKIES.length] ?? '', 'open-nights': 'yes' },
        returnTo: '/',
      };
      const person = await personNamed(member.name, member.email, MEMBER_PASSWORD);
      const joined = must(await submitCheckout(person, input), member.name);
      if (joined.state === 'approve') {
        await approveAtWallet(joined.url, how as Purse);
        must(await returnFromWallet(person, input.checkoutId), member.name);
      }
      if (how === 'sends') senders.add(member.email);
    }
    for (const { email } of members.filter((m) => m.cancel_days_ago === daysAgo)) {
      const member = await findMemberByEmail(pool(), email);
      const [running] = member ? await listSubscriptionsOf(pool(), member.id, 'test') : [];
      if (member && running) must(await cancelSubscription(asMember(member.id), running.id), email);
    }
    if (daysAgo > 0) must(await moveClock(owner, { days: 1 }), 'the clock');
    while (must(await runOneDue(WORKER), 'what is due'));
    must(await settleAgreements(WORKER), 'agreements');
    await sendTransfers(owner, ways.transfer, senders);
    tell(DAYS - daysAgo);
  }
}

/** The members of the society's committee, who read what is hidden from all others. */
async function loadCommittee(): Promise<void> {
  const addresses = ['idris.penhallow@moor.example', 'nell.garrowby@moor.example'].join(', ');
  must(await addMembersToGroup(SETUP, { id: 'committee', addresses }), 'the committee');
}

const productsSchema = z.array(
  z.object({
    name: z.string(),
    sells: z.string(),
    amount: z.string(),
    lasts: lengthSchema.nullable(),
    mostDevices: z.number().nullable(),
    holderPrices: z.array(z.unknown()).default([]),
  }),
);

/** All of Lantern Moor. The site must answer already, so that the gateway's test message is heard. */
export async function loadDemo(gatewayUrl: string, tell: (text: string) => void): Promise<void> {
  const now = realNow();
  // By the calendar, as the clock is moved: 120 local days are not always 120 times 24 hours.
  const owner = await loadEmptySite(toMs(addLength(now, { n: -DAYS, unit: 'day' }, ZONE)) - toMs(now));
  await loadContent(now);
  tell('Writing two years of its journal');
  await loadArchive(now, ZONE);
  const keys = await readTestKeys(gatewayUrl);
  must(await connectGateway(owner, { gateway: 'curlew-cards', ...keys }), 'Curlew Cards');
  const wallet = gatewayById('dunlin-wallet');
  const consent = await wallet.keysFromConsent(await consentOf(wallet, 'test'));
  if (!consent.ok) throw new Error(consent.reason);
  const account = must(await keepAccount(owner, await currentSite(), wallet, consent.keys), 'Dunlin Wallet');
  const bank = {
    payee: 'Lantern Moor Society',
    account: '40-17-92 00481516',
    bank: 'Moorland Mutual',
    daysToPay: 14,
  };
  const transfer = must(await connectTransfer(owner, bank), 'bank transfer');
  await loadHistory(
    owner,
    gatewayUrl,
    { siteKey: keys.siteKey, wallet: account.id, transfer: transfer.id },
    (done) => done % 30 === 0 && tell(`Rehearsing its history: ${done} of ${DAYS} days`),
  );
  await loadCommittee();
  await loadComments();
  await loadLetters(owner);
  for (const product of productsSchema.parse(JSON.parse(readFileSync('demo/products.json', 'utf8'))))
    must(
      await saveProduct(owner, {
        ...product,
        id: null,
        mostDevices: String(product.mostDevices ?? ''),
        taxKindId: null,
        onSale: true,
      }),
      product.name,
    );
}
