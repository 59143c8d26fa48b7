import { defineMail } from '../define';

/** A letter of the owner to many. `html` was made by us from its text; `readPath`: where the link leads. */
type Facts = { title: string; html: string; text: string; readPath: string };

export const letter = defineMail<Facts>()({
  template: 'letter',
  topic: 'letters',
  isAlwaysSent: true,
  fields: [],
  words: ({ title, html, text, readPath }, { t, siteName }) => ({
    subject: title,
    isGreeted: false,
    lines: [],
    body: { html, text },
    link: { label: t('mail-letter.link', { site: siteName }), path: readPath },
  }),
  sample: ({ siteName, sentence }) => ({
    title: siteName,
    html: '',
    text: sentence,
    readPath: '/',
  }),
});
