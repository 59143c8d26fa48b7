import { claimReads as claim } from '@/access/store/meters';
import { findSessionMember } from '@/people/store/sessions';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { hashToken } from '@/platform/tokens';
import { publicUse } from '@/platform/use';
import { countedOf } from './lib/free-reads';

/** What a visitor has read for free in a browser is the member's who has just signed in with it. */
export const claimReads = publicUse('claim-reads', nothing, async ({ browser }) => {
  const counted = countedOf({ kind: 'visitor', memberId: null, staffRole: null, browser });
  if (!counted?.browser || !browser?.session) return done(null);
  const found = await findSessionMember(pool(), hashToken(browser.session));
  if (found) await claim(pool(), counted.browser, found.member.id);
  return done(null);
});
