import { defineMail } from '../define';
import { ACCOUNT, nextWords } from '../words';
import type { Joined } from '../facts';

export const switched = defineMail<Joined>()({
  template: 'switched',
  name: 'Switched',
  when: 'Somebody went over to another offer at once.',
  fields: ['tier'],
  words: (mail, frame) => ({
    subject: `You now hold ${mail.tierName}`,
    lines: [
      `You now hold ${mail.tierName}. ${mail.sentence}`,
      ...mail.words.split(/\n+/).filter(Boolean),
      mail.nextCharge
        ? `${nextWords(mail.nextCharge, frame)} You can cancel before then, in your account, with one click.`
        : 'Nothing more will be charged.',
    ],
    link: ACCOUNT,
  }),
  sample: ({ tierName, sentence, welcome, nextCharge }) => ({
    tierName,
    sentence,
    words: welcome,
    nextCharge,
  }),
});
