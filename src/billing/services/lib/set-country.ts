import { setTaxCountry } from '@/billing/store/subscriptions';
import { setCountry as setCountryOf } from '@/people/store/members';
import type { Transaction } from '@/platform/store/db';
import type { MemberId } from '@/core/ids';

/** Where a member is, for them and for the tax of all that they are charged from now on. ISO 3166-1 alpha-2, or ''. */
export async function setCountry(db: Transaction, memberId: MemberId, country: string): Promise<void> {
  await setCountryOf(db, memberId, country);
  await setTaxCountry(db, memberId, country);
}
