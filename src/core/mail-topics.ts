/** What members can turn off, each by one click in its mails and in their account. */
export const MAIL_TOPICS = ['comments'] as const;
export type MailTopic = (typeof MAIL_TOPICS)[number];
