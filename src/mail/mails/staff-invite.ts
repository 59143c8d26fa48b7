import type { StaffRole } from '@/core/staff';
import { defineMail, type MailSecret } from '../define';

type Facts = { role: StaffRole; secret: MailSecret; days: number };

export const staffInvite = defineMail<Facts>()({
  template: 'staff-invite',
  isAlwaysSent: true,
  fields: [],
  words: ({ role, secret, days }, { t, siteName: site }) => ({
    subject: t('mail-staff-invite.subject', { site }),
    lines: [t('mail-staff-invite.words', { site, role, days }), t('mail-staff-invite.not-you')],
    link: { label: t('mail-staff-invite.link'), path: secret.path },
  }),
  sample: () => ({ role: 'editor', secret: { path: '/desk' }, days: 7 }),
});
