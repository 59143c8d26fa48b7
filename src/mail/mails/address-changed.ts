import { defineMail } from '../define';
import { ACCOUNT } from '../words';

type Facts = { email: string };

export const addressChanged = defineMail<Facts>()({
  template: 'address-changed',
  name: 'Address changed',
  when: 'A member has another address; the old one is told.',
  isAlwaysSent: true,
  fields: [],
  words: (mail, frame) => ({
    subject: `Your address at ${frame.siteName} has changed`,
    lines: [
      `Your account now has the address ${mail.email}. Mail goes there from now on, and you sign in with it.`,
      'If it was not you, write to us at once.',
    ],
    link: ACCOUNT,
  }),
  sample: ({ email }) => ({ email }),
});
