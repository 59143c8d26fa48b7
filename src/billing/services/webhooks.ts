import { randomBytes, randomUUID } from 'node:crypto';
import { z } from 'zod';
import { isWebhookUrl, WEBHOOK_TOPICS } from '@/core/webhooks';
import {
  deleteWebhook,
  findWebhook,
  insertWebhook,
  listMessages,
  listWebhooks,
  requeueMessage,
  updateWebhook,
} from '@/billing/store/webhooks';
import { siteNow } from '@/platform/clock';
import { config } from '@/platform/config';
import { nothing, slug, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { seal } from '@/platform/seal';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { keptTiers } from '@/tiers/services/lib/kept';

/** So many addresses are told at most: each costs a message for everything that happens. */
const MOST = 20;
const ROWS = 50;
const use = staffUse('set up the site');

const webhookSchema = z.object({
  url: z.string().trim().max(500),
  topics: z.array(z.enum(WEBHOOK_TOPICS)).max(WEBHOOK_TOPICS.length),
  /** Empty: all tiers. */
  tiers: z.array(slug).max(200),
});
const isFor = (url: string): boolean => isWebhookUrl(url, config().WEBHOOKS_TO_OWN_MACHINE === 'yes');

/** The addresses that are told of what happens to memberships, in the site's mode. */
export const webhooksPlace = use('webhooks-place', nothing, async () => {
  const { mode } = await currentSite();
  return done({
    mode,
    webhooks: await listWebhooks(pool(), mode),
    tiers: (await keptTiers()).map(({ id, name }) => ({ id, name })),
  });
});

/** Adds an address. The answer holds the secret by which it knows the messages, which is shown this once. */
export const addWebhook = use(
  'add-webhook',
  webhookSchema,
  async (actor, { url, topics, tiers }): Promise<Result<{ id: string; secret: string }>> => {
    if (!isFor(url)) return refusedField('url', 'webhook.url');
    if (topics.length === 0) return refusedField('topics', 'webhook.no-topics');
    const id = randomUUID();
    const secret = `whsec_${randomBytes(24).toString('base64')}`;
    return transaction(async (db): Promise<Result<{ id: string; secret: string }>> => {
      const site = await currentSite(db);
      const { mode } = site;
      if ((await listWebhooks(db, mode)).length >= MOST) return refusedField('', 'webhook.too-many');
      await insertWebhook(db, {
        id,
        url,
        topics,
        tiers: tiers.length > 0 ? tiers : null,
        mode,
        sealed: seal(secret),
      });
      await record(db, actor, siteNow(site), 'webhook added', `webhook:${id}`, { url, topics, tiers });
      return done({ id, secret });
    });
  },
);

/** Changes what an address is told, or turns it off: what waits for it waits until it is on again. */
export const changeWebhook = use(
  'change-webhook',
  webhookSchema.extend({ id: uuid, isOn: z.boolean() }),
  async (actor, { id, url, topics, tiers, isOn }): Promise<Result<null>> => {
    if (!isFor(url)) return refusedField('url', 'webhook.url');
    if (topics.length === 0) return refusedField('topics', 'webhook.no-topics');
    return transaction(async (db): Promise<Result<null>> => {
      const hook = { id, url, topics, tiers: tiers.length > 0 ? tiers : null, isOn };
      if (!(await updateWebhook(db, hook))) return missing();
      await record(db, actor, siteNow(await currentSite(db)), 'webhook changed', `webhook:${id}`, hook);
      return done(null);
    });
  },
);

/** Deletes an address with its log; what waits for it is never sent. */
export const removeWebhook = use('remove-webhook', uuid, async (actor, id): Promise<Result<null>> =>
  transaction(async (db): Promise<Result<null>> => {
    if (!(await deleteWebhook(db, id))) return missing();
    await record(db, actor, siteNow(await currentSite(db)), 'webhook removed', `webhook:${id}`);
    return done(null);
  }),
);

/** What was sent to an address, with what it answered. */
export const webhookLog = use(
  'webhook-log',
  z.object({ id: uuid, page: z.coerce.number().int().min(1).max(10_000).catch(1) }),
  async (_, { id, page }) => {
    const hook = await findWebhook(pool(), id);
    if (!hook) return missing();
    const list = await listMessages(pool(), id, { limit: ROWS, offset: (page - 1) * ROWS });
    return done({ hook, page, rowsOnPage: ROWS, ...list });
  },
);

/** Sends a message once more, with the id it had: who has taken it already knows it by that. */
export const sendWebhookAgain = use('send-webhook-again', uuid, async (actor, id): Promise<Result<null>> =>
  transaction(async (db): Promise<Result<null>> => {
    if (!(await requeueMessage(db, id))) return refusedField('', 'webhook.waits');
    await record(db, actor, siteNow(await currentSite(db)), 'webhook message sent again', `message:${id}`);
    return done(null);
  }),
);
