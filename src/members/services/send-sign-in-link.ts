import { writeMail } from '@/mail/services/lib/write-mail';
import { waitMinutes } from '@/people/services/lib/wait-minutes';
import { lockMember } from '@/people/store/members';
import { insertSignInLink } from '@/people/store/sign-in-links';
import { siteNow } from '@/platform/clock';
import { uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transaction } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { newToken } from '@/platform/tokens';
import { staffUse } from '@/platform/use';

const DAYS = 3;
/** So that a double click, or two of the staff, do not fill a mailbox. */
const PER_MEMBER: Limit = { name: 'link:member', points: 3, seconds: 10 * 60 };

/** Mails a member a link that signs them in, once. */
export const sendSignInLink = staffUse('manage members')(
  'send-sign-in-link',
  uuid,
  async (actor, id): Promise<Result<{ email: string }>> => {
    const site = await currentSite();
    const at = siteNow(site);
    const wait = await spendPoint(PER_MEMBER, id);
    if (wait > 0) return refusedField('', 'link.just-sent', { minutes: waitMinutes(wait) });
    return transaction(async (db): Promise<Result<{ email: string }>> => {
      const member = await lockMember(db, id);
      if (!member || member.deletedAt) return missing();
      if (member.blockedAt) return refusedField('', 'link.blocked');
      const link = newToken();
      await insertSignInLink(db, link.hash, member.id, '/account', DAYS);
      await writeMail(db, site, {
        to: member,
        content: {
          template: 'sign-in-link',
          secret: { path: `/sign-in/link/${link.token}` },
          days: DAYS,
        },
        key: `sign-in-link:${link.hash.toString('hex')}`,
        at,
      });
      await record(db, actor, at, 'sign-in link sent', `member:${member.id}`);
      return done({ email: member.email });
    });
  },
);
