import { defineMail } from '../define';
import { accountLink } from '../words';
import { joinedLines, sampleJoined, type Joined } from '../facts';

export const switched = defineMail<Joined>()({
  template: 'switched',
  fields: ['tier'],
  words: (mail, frame) => ({
    subject: frame.t('mail-switched.subject', { tier: mail.tierName }),
    lines: joinedLines(mail, frame),
    link: accountLink(frame.t),
  }),
  sample: sampleJoined,
});
