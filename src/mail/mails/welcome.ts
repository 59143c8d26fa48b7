import { defineMail } from '../define';
import { ACCOUNT } from '../words';
import { joinedLines, sampleJoined, type Joined } from '../facts';

export const welcome = defineMail<Joined>()({
  template: 'welcome',
  name: 'Welcome',
  when: 'A member has joined.',
  fields: ['tier'],
  words: (mail, frame) => ({
    subject: `Welcome to ${frame.siteName}${frame.firstName ? `, ${frame.firstName}` : ''}`,
    lines: joinedLines(mail, frame),
    link: ACCOUNT,
  }),
  sample: sampleJoined,
});
