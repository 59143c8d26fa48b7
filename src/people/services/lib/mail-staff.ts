import type { StaffMail } from '@/core/staff-mails';
import { writeStaffMail, type StaffLetter } from '@/mail/services/lib/write-staff-mail';
import { listStaffReaders, type StaffReader } from '@/people/store/staff-mails';
import type { Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';

/** Queues a mail to those of the staff who asked for news of this kind; `staff` where they were read before. */
export async function mailStaff(
  db: Transaction,
  site: Site,
  about: StaffMail,
  letter: StaffLetter,
  staff?: StaffReader[],
): Promise<void> {
  for (const reader of staff ?? (await listStaffReaders(db)))
    if (reader.kinds.includes(about)) await writeStaffMail(db, site, reader, letter);
}
