import { defineMail } from '../define';
import { ACCOUNT } from '../words';
import { joinedLines, sampleJoined, type Joined } from '../facts';

export const switched = defineMail<Joined>()({
  template: 'switched',
  name: 'Switched',
  when: 'A member switches to another offer at once.',
  fields: ['tier'],
  words: (mail, frame) => ({
    subject: `You now hold ${mail.tierName}`,
    lines: joinedLines(mail, frame),
    link: ACCOUNT,
  }),
  sample: sampleJoined,
});
