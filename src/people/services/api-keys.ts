import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { mayGrant, SCOPES } from '@/core/api/scopes';
import { siteNow } from '@/platform/clock';
import { nothing, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { hashToken, newToken } from '@/platform/tokens';
import { publicUse, staffUse } from '@/platform/use';
import { findApiKey, insertApiKey, listApiKeys, revokeApiKey as revoke } from '@/people/store/api-keys';
import { say } from '@/words/problems';

export type { ApiKey } from '@/people/store/api-keys';

const MOST_DAYS = 366;
/** How many of its characters a key is known by. */
const SHOWN = 14;

/** All keys, and the mode that new ones are for. */
export const apiKeys = staffUse('set up the site')('api-keys', nothing, async () =>
  done({ keys: await listApiKeys(pool()), mode: (await currentSite()).mode }),
);

const keySchema = z.object({
  name: z.string().trim().min(1, say('key.no-name')).max(60),
  scopes: z.array(z.enum(SCOPES)).min(1, say('key.no-scope')).max(SCOPES.length),
  days: z.number().int(say('number.whole-days')).min(1, say('key.days')).max(MOST_DAYS, say('key.days')),
});

/** Makes a key of the API, in the site's mode. The answer holds the key itself, which is shown this once. */
export const makeApiKey = staffUse('set up the site')(
  'make-api-key',
  keySchema,
  async (actor, { name, scopes, days }): Promise<Result<{ key: string }>> => {
    const { memberId } = actor;
    const powers = await powersOf(actor);
    const tooMuch = scopes.find((scope) => !mayGrant(powers, scope));
    if (!memberId || tooMuch) return refusedField('scopes', 'key.more-than-you');
    return transaction(async (db) => {
      const site = await currentSite(db);
      const key = `nest_${site.mode}_${newToken().token}`;
      const id = randomUUID();
      const begins = key.slice(0, SHOWN);
      const made = { id, name, scopes: [...new Set(scopes)], mode: site.mode, begins, days };
      await insertApiKey(db, { ...made, hash: hashToken(key), madeBy: memberId });
      await record(db, actor, siteNow(site), 'API key made', `key:${id}`, made);
      return done({ key });
    });
  },
);

/** Ends a key at once. */
export const revokeApiKey = staffUse('set up the site')(
  'revoke-api-key',
  uuid,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      if (!(await revoke(db, id))) return refusedField('', 'key.gone');
      await record(db, actor, at, 'API key revoked', `key:${id}`);
      return done(null);
    });
  },
);

const CALLS: Limit = { name: 'api:calls', points: 600, seconds: 60 };

/**
 * Whose key it is, and what it may be used for: never more than the one who made it may do now. `wait`: how many
 * seconds the next call has to wait; 0: this one may continue. Null: it is good for nothing.
 */
export const whoseKey = publicUse('whose-key', z.string().max(200), async (_, key) => {
  const [found, site] = [await findApiKey(pool(), hashToken(key)), await currentSite()];
  if (!found || found.mode !== site.mode) return done(null);
  const powers = await powersOf(found);
  const scopes = found.scopes.filter((scope) => mayGrant(powers, scope));
  return done({ ...found, scopes, wait: await spendPoint(CALLS, found.id) });
});
