import { defineMail, type MailSecret } from '../define';

type Facts = { why: 'sign-in' | 'join' | 'new-address'; secret: MailSecret; minutes: number };

export const code = defineMail<Facts>()({
  template: 'code',
  name: 'Confirmation code',
  when: 'Someone joins, signs in without a password, or changes their email address.',
  isAlwaysSent: true,
  fields: [],
  words: (mail, frame) => {
    const what = {
      'sign-in': `to sign in to ${frame.siteName}`,
      join: `to join ${frame.siteName}`,
      'new-address': `to use this email address at ${frame.siteName}`,
    }[mail.why];
    return {
      subject: `Your code ${what}`,
      lines: [
        `Type this code ${what}. It works once, for ${mail.minutes} minutes, in the browser where you asked for it.`,
        'Didn’t ask for a code? Ignore this email: nothing happens without the code.',
      ],
      code: mail.secret.code,
      link: { label: 'Or open this link in the same browser', path: mail.secret.path },
    };
  },
  sample: () => ({ why: 'sign-in', secret: { path: '/sign-in', code: '123456' }, minutes: 10 }),
});
