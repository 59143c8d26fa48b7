import type { NoticeKind } from './billing/book';

/** What a webhook can be told of. */
export const WEBHOOK_TOPICS = ['joined', 'paid', 'failed', 'switched', 'refunded', 'ended'] as const;
export type WebhookTopic = (typeof WEBHOOK_TOPICS)[number];

const OF: Partial<Record<NoticeKind, WebhookTopic>> = {
  joined: 'joined',
  paid: 'paid',
  'payment-failed': 'failed',
  switched: 'switched',
  refunded: 'refunded',
  ended: 'ended',
  'ended-unpaid': 'ended',
  'dispute-lost': 'ended',
};

/** Under which topic a book's news goes out; undefined where it does not. */
export const topicOf = (kind: NoticeKind): WebhookTopic | undefined => OF[kind];

/** Real seconds to wait before each further try of a message; after the last it has failed. */
export const WEBHOOK_WAITS = [5, 300, 1800, 7200, 18_000, 36_000, 50_400, 72_000, 86_400] as const;

/** Whether an address is one that messages may go to: https, or, where the site may reach its own machine, http as well; no password in it. */
export function isWebhookUrl(text: string, toOwnMachine: boolean): boolean {
  if (text.length > 500 || !URL.canParse(text)) return false;
  const { protocol, username, password, hash } = new URL(text);
  return (protocol === 'https:' || (toOwnMachine && protocol === 'http:')) && !username && !password && !hash;
}
