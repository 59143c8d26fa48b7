import { defineMail } from '../define';
import { accountLink } from '../words';
import { joinedLines, sampleJoined, type Joined } from '../facts';

export const welcome = defineMail<Joined>()({
  template: 'welcome',
  fields: ['tier'],
  words: (mail, frame) => ({
    subject: frame.t('mail-welcome.subject', { site: frame.siteName, name: frame.firstName || 'none' }),
    lines: joinedLines(mail, frame),
    link: accountLink(frame.t),
  }),
  sample: sampleJoined,
});
