import type { Asker } from '@/core/access/asker';
import type { Doorstep } from '@/core/access/doorstep';

const NOTICES = {
  visitor: 'doorstep.visitor-notice',
  'wrong-tier': 'doorstep.member-notice',
  'must-wait': 'doorstep.wait-notice',
  lapsed: 'doorstep.lapsed-notice',
  'payment-failed': 'doorstep.unpaid-notice',
} as const satisfies Record<Asker, string>;

/** How a new site's doorstep meets people, in its language. */
export function meetsIn(say: (key: (typeof NOTICES)[Asker]) => string): Doorstep['meets'] {
  const notice = (asker: Asker) => ({ kind: 'notice' as const, words: say(NOTICES[asker]) });
  return {
    visitor: notice('visitor'),
    'wrong-tier': notice('wrong-tier'),
    'must-wait': notice('must-wait'),
    lapsed: notice('lapsed'),
    'payment-failed': notice('payment-failed'),
  };
}
