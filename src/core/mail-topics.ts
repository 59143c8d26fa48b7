/** What readers can turn off, each by one click in its mails and in their account. */
export const MAIL_TOPICS = ['comments', 'posts', 'letters'] as const;
export type MailTopic = (typeof MAIL_TOPICS)[number];

/** Topics that people can ask for who have no account. */
export const OPEN_TOPICS = ['posts', 'letters'] as const satisfies MailTopic[];
export type OpenTopic = (typeof OPEN_TOPICS)[number];

/** Who said whether someone gets the mails of a topic: they themselves, staff for them, or a file that was imported. */
export type ChosenBy = 'self' | 'staff' | 'import';

/** Whether members get the mails of a topic until they turn them off. Letters go only to those who asked for them. */
export const isOnAtFirst = (topic: MailTopic): boolean => topic !== 'letters';
