import type { MemberId } from '@/core/ids';
import type { StaffMail } from '@/core/staff-mails';
import { many, prepared, run, type Db } from '@/platform/store/db';

export type StaffReader = { id: MemberId; email: string; name: string; kinds: StaffMail[] };

const LIST_READERS = prepared(
  'list-staff-readers',
  `SELECT m.id, m.email, m.name, array_agg(s.kind) AS kinds FROM staff_mails s JOIN members m ON m.id = s.member_id
   WHERE m.staff_role IS NOT NULL AND m.deleted_at IS NULL GROUP BY m.id`,
);

/** Staff who asked for mails, with what about. */
export async function listStaffReaders(db: Db): Promise<StaffReader[]> {
  return many(db, LIST_READERS);
}

export async function findStaffMails(db: Db, memberId: string): Promise<StaffMail[]> {
  const rows = await many<{ kind: StaffMail }>(db, 'SELECT kind FROM staff_mails WHERE member_id = $1', [
    memberId,
  ]);
  return rows.map(({ kind }) => kind);
}

/** From now on these, and no others. */
export async function setStaffMails(db: Db, memberId: string, kinds: StaffMail[]): Promise<void> {
  await run(db, 'DELETE FROM staff_mails WHERE member_id = $1', [memberId]);
  await run(db, 'INSERT INTO staff_mails (member_id, kind) SELECT $1, unnest($2::text[])', [memberId, kinds]);
}
