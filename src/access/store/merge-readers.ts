import type { MemberId } from '@/core/ids';
import { run, type Transaction } from '@/platform/store/db';

/** Makes what one member has read another's; a private address of theirs is no longer good. */
export async function moveReading(db: Transaction, from: MemberId, to: MemberId): Promise<void> {
  await run(db, 'UPDATE meter_reads SET member_id = $2 WHERE member_id = $1', [from, to]);
  await run(db, 'UPDATE meter_ends SET member_id = $2 WHERE member_id = $1', [from, to]);
  await run(db, 'DELETE FROM private_feeds WHERE member_id = $1', [from]);
}
