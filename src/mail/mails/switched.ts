import { defineMail } from '../define';
import { accountLink } from '../words';
import { joinedLines, sampleJoined, type Joined } from '../facts';

export const switched = defineMail<Joined>()({
  template: 'switched',
  name: 'Switched',
  when: 'A member switches to another offer at once.',
  fields: ['tier'],
  words: (mail, frame) => ({
    subject: frame.t('mail-switched.subject', { tier: mail.tierName }),
    lines: joinedLines(mail, frame),
    link: accountLink(frame.t),
  }),
  sample: sampleJoined,
});
