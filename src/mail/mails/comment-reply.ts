import { defineMail } from '../define';

/** `title` and `path` of the item that was commented on; `by`: the name of the writer, '' where they gave none. */
type Facts = { title: string; path: string; by: string };

export const commentReply = defineMail<Facts>()({
  template: 'comment-reply',
  topic: 'comments',
  fields: [],
  // What was written stays on the page, where it is only shown to those who may still read it.
  words: ({ title, path, by }, { t }) => ({
    subject: t('mail-comment.subject', { title }),
    lines: [t('mail-comment.words', { title, name: by || 'none' })],
    link: { label: t('mail-comment.link'), path },
  }),
  sample: ({ tierName }) => ({ title: tierName, path: '/#comments', by: 'Alex' }),
});
