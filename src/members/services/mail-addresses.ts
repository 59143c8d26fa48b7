import { z } from 'zod';
import { deleteMailAddress, listMailAddresses } from '@/mail/store/mail-addresses';
import { siteNow } from '@/platform/clock';
import { uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';

const PAGE_SIZE = 100;

/** Those of whom only a confirmed address is known, a page of them. */
export const addressesPlace = staffUse('see members')(
  'addresses-place',
  z.object({
    q: z.string().trim().max(200).catch('').default(''),
    page: z.coerce.number().int().min(1).max(100_000).catch(1),
  }),
  async (_, { q, page }) => {
    const filter = { search: q, limit: PAGE_SIZE, offset: (page - 1) * PAGE_SIZE };
    const { rows, total } = await listMailAddresses(pool(), filter);
    return done({ rows, total, page, perPage: PAGE_SIZE });
  },
);

/** Forgets an address. They can ask for mails again at any time. */
export const removeAddress = staffUse('manage members')(
  'remove-address',
  uuid,
  async (actor, id): Promise<Result<{ email: string }>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      const gone = await deleteMailAddress(db, id);
      if (!gone) return refusedField('', 'letter.address-gone');
      await record(db, actor, at, 'address removed', `address:${id}`);
      return done({ email: gone.email });
    });
  },
);
