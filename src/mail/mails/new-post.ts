import { defineMail } from '../define';

/**
 * A post, as far as its reader may read it. `rest`: whether more of it is on the site: nothing, as this is all of it; what is
 * closed to them; or sections that are.
 */
type Facts = {
  title: string;
  by: string;
  html: string;
  text: string;
  rest: 'none' | 'closed' | 'sections';
  readPath: string;
};

export const newPost = defineMail<Facts>()({
  template: 'new-post',
  topic: 'posts',
  isAlwaysSent: true,
  fields: [],
  words: ({ title, by, html, text, rest, readPath }, { t }) => ({
    subject: title,
    lines: [t('mail-post.words', { title, name: by || 'none' })],
    body: { html, text },
    link: { label: t(`mail-post.link-${rest}`), path: readPath },
  }),
  sample: ({ tierName, sentence }) => ({
    title: tierName,
    by: '',
    html: '',
    text: sentence,
    rest: 'none',
    readPath: '/',
  }),
});
