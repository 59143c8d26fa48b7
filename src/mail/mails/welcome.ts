import { defineMail } from '../define';
import { ACCOUNT, nextWords } from '../words';
import type { Joined } from '../facts';

export const welcome = defineMail<Joined>()({
  template: 'welcome',
  name: 'Welcome',
  when: 'Somebody has joined.',
  fields: ['tier'],
  words: (mail, frame) => ({
    subject: `Welcome to ${frame.siteName}${frame.firstName ? `, ${frame.firstName}` : ''}`,
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
