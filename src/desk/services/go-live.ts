import { siteNow } from '@/platform/clock';
import { z } from 'zod';
import { cannotCarry } from '@/core/offers/carries';
import { gatewayById } from '@/billing/gateways';
import { lock, pool, transaction, type Db } from '@/platform/store/db';
import { listCheckoutAccounts } from '@/billing/store/gateways';
import { listGiftCards } from '@/billing/store/purchases';
import { deleteBatch } from '@/tiers/store/codes';
import { listOffers } from '@/tiers/store/offers';
import { listTiers } from '@/tiers/store/tiers';
import { findSite, setClearsTestData, setLive, type Site } from '@/platform/store/site';
import { countTestData, deleteTestData, endTestAgreements, type TestData } from '@/billing/store/test-data';
import { WORKER } from '@/platform/actor';
import { realNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { nothing, passwordAgain } from '@/platform/inputs';
import { staffUse, systemUse } from '@/platform/use';
import { confirmStaff } from '@/people/services/lib/confirm-password';
import { countTestDocuments, deleteTestDocuments } from '@/documents/store/documents';
import { problem, type ProblemCode } from '@/words/problems';
import type { Problem } from '@/core/problem';

/** How much there is that was made in test mode. */
export type TestDataCounts = TestData & { documents: number };

export type Readiness = {
  site: Site;
  /** What must be put right first, and where. */
  blockers: { problem: Problem<ProblemCode>; href: string }[];
  /** What does not stop it, and should be known. */
  warnings: Problem<ProblemCode>[];
  /** Names of the live gateways that people will see at checkout. */
  atCheckout: string[];
  testData: TestDataCounts;
};

/** Whether the site can go live, what prevents it, and what was made in test mode. */
async function readReadiness(): Promise<Readiness> {
  const site = await currentSite();
  return {
    site,
    ...(await findObstacles(pool())),
    testData: await countAll(pool(), site),
  };
}

const countAll = async (db: Db, site: Site): Promise<TestDataCounts> => ({
  ...(await countTestData(db, siteNow(site, 'test'))),
  documents: await countTestDocuments(db),
});

async function findObstacles(db: Db): Promise<Pick<Readiness, 'blockers' | 'warnings' | 'atCheckout'>> {
  const accounts = await listCheckoutAccounts(db, 'live');
  const paid = (await listOffers(db)).filter((offer) => offer.onSale && offer.isPaid);
  const gateways = '/desk/money/gateways';
  const tierNames = new Map((await listTiers(db)).map(({ id, name }) => [id, name]));
  const lost = paid.filter((offer) =>
    accounts.every(
      (account) => cannotCarry(gatewayById(account.gateway).carries, offer.definition).length > 0,
    ),
  );
  const blockers =
    paid.length > 0 && accounts.length === 0 ? [{ problem: problem('live.no-gateway'), href: gateways }] : [];
  return {
    blockers,
    atCheckout: accounts.map((account) => account.label),
    warnings: [
      ...accounts
        .filter((account) => gatewayById(account.gateway).hasWebhooks && !account.heardAt)
        .map((account) => problem('live.webhook-not-heard', { gateway: account.label })),
      ...(accounts.length > 0
        ? lost.map((offer) =>
            problem('live.offer-not-carried', { offer: offer.name, tier: tierNames.get(offer.tierId) ?? '' }),
          )
        : []),
    ],
  };
}

const inputSchema = z.object({
  /** The site's name, typed to confirm. */
  typed: z.string().trim(),
  clearsTestData: z.boolean(),
  password: passwordAgain,
});

/**
 * The one step from test to live. From then on only live holdings count, checkout takes real money, and what was made in
 * test mode stops. There is no way back.
 */
export const goLive = staffUse('set up the site')(
  'go-live',
  inputSchema,
  async (actor, input): Promise<Result<null>> => {
    const confirmed = await confirmStaff(actor, input.password);
    if (!confirmed.ok) return confirmed;
    return transaction(async (db) => {
      await lock(db, 'go live');
      const site = await findSite(db);
      if (!site || site.mode === 'live') return refusedField('', 'live.already');
      const { blockers } = await findObstacles(db);
      if (blockers[0]) return refusedField('', 'live.blocked', { why: blockers[0].problem });
      if (!isName(input.typed, site.name)) return refusedField('typed', 'live.name', { name: site.name });
      const at = realNow();
      await setLive(db, at);
      await endTestAgreements(db);
      if (input.clearsTestData) await setClearsTestData(db, true);
      await record(db, actor, at, 'went live', 'site', { clearsTestData: input.clearsTestData });
      return done(null);
    });
  },
);

const isName = (typed: string, name: string): boolean => typed.toLowerCase() === name.trim().toLowerCase();

const typedSchema = z.object({ typed: z.string().max(200) });

/** Asks for everything that was made in test mode to be cleared. In live mode only; the worker does it. */
export const askToClearTestData = staffUse('set up the site')(
  'ask-to-clear-test-data',
  typedSchema,
  async (actor, { typed }): Promise<Result<null>> => {
    return transaction(async (db) => {
      await lock(db, 'go live');
      const site = await findSite(db);
      if (site?.mode !== 'live') return refusedField('', 'live.not-yet');
      if (!isName(typed.trim(), site.name)) return refusedField('typed', 'live.name', { name: site.name });
      await endTestAgreements(db);
      await setClearsTestData(db, true);
      await record(db, actor, realNow(), 'asked for test data to be cleared', 'site');
      return done(null);
    });
  },
);

/** Clears what was made in test mode, where that was asked for and no wallet bills for it still. */
async function clear(): Promise<number> {
  const site = await findSite(pool());
  if (!site?.clearsTestData || site.mode !== 'live') return 0;
  return transaction(async (db) => {
    await lock(db, 'go live');
    const counts = await countAll(db, site);
    if (counts.agreements > 0) return 0;
    await deleteTestDocuments(db);
    for (const id of await listGiftCards(db, 'test')) await deleteBatch(db, id);
    await deleteTestData(db);
    await setClearsTestData(db, false);
    await record(db, WORKER, realNow(), 'test data cleared', 'site', counts);
    return counts.subscriptions + counts.payments;
  });
}

export const readiness = staffUse('set up the site')('readiness', nothing, async () =>
  done(await readReadiness()),
);

export const clearTestData = systemUse('clear-test-data', nothing, async () => done(await clear()));
