/** What staff can ask to be mailed about. */
export const STAFF_MAILS = [
  'joined',
  'bought',
  'failed',
  'disputed',
  'left',
  'transfer',
  'comment',
  'weekly',
] as const;
export type StaffMail = (typeof STAFF_MAILS)[number];
