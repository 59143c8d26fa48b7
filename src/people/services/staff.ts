import { z } from 'zod';
import { STAFF_ROLES } from '@/core/staff';
import { writeMailTo } from '@/mail/services/lib/write-mail';
import { findMemberByEmail, insertMember, lockMember, type Member } from '@/people/store/members';
import {
  deleteInvite,
  findInvite,
  listInvites,
  listStaff,
  lockOwners,
  saveInvite,
  setStaffRole,
  takeInvite,
} from '@/people/store/staff';
import { realNow, siteNow } from '@/platform/clock';
import { emailAddress, nothing, passwordAgain, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction, transactionUnlessRefused } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { hashToken, newToken } from '@/platform/tokens';
import { publicUse, staffUse } from '@/platform/use';
import { confirmStaff } from './lib/confirm-password';
import { confirmEmail, openSession, type Opened } from './lib/open-session';
import { waitMinutes } from './lib/wait-minutes';

const INVITED_DAYS = 7;
const INVITES: Limit = { name: 'staff:invite', points: 30, seconds: 3600 };
const role = z.enum(STAFF_ROLES);

/** All staff, and who is invited. */
export const staffPlace = staffUse('set up the site')('staff-place', nothing, async () =>
  done({ staff: await listStaff(pool()), invites: await listInvites(pool()) }),
);

/** Mails someone an invitation to the staff. They are staff once they have opened its link. */
export const inviteStaff = staffUse('set up the site')(
  'invite-staff',
  z.object({ email: emailAddress, role, password: passwordAgain }),
  async (actor, { email, role: asked, password }): Promise<Result<null>> => {
    const confirmed = await confirmStaff(actor, password);
    if (!confirmed.ok) return confirmed;
    const wait = await spendPoint(INVITES, actor.memberId ?? 'setup');
    if (wait > 0) return refusedField('', 'tries.too-many', { minutes: waitMinutes(wait) });
    const site = await currentSite();
    const at = siteNow(site);
    return transaction(async (db): Promise<Result<null>> => {
      const known = await findMemberByEmail(db, email);
      if (known?.staffRole) return refusedField('email', 'staff.there');
      if (known?.blockedAt) return refusedField('email', 'staff.blocked');
      const link = newToken();
      await saveInvite(db, { email, role: asked, hash: link.hash, by: actor.memberId, days: INVITED_DAYS });
      await writeMailTo(db, site, {
        to: { id: known?.id ?? null, address: email },
        reader: { email, name: known?.emailConfirmedAt ? known.name : '' },
        content: {
          template: 'staff-invite',
          role: asked,
          secret: { path: `/desk/invite/${link.token}` },
          days: INVITED_DAYS,
        },
        key: `staff-invite:${link.hash.toString('hex')}`,
        at,
      });
      await record(db, actor, at, 'invited to the staff', 'site', { email, role: asked });
      return done(null);
    });
  },
);

export const withdrawInvite = staffUse('set up the site')(
  'withdraw-invite',
  uuid,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db): Promise<Result<null>> => {
      const email = await deleteInvite(db, id);
      if (email === undefined) return missing();
      await record(db, actor, at, 'invitation withdrawn', 'site', { email });
      return done(null);
    });
  },
);

const roleSchema = z.object({
  memberId: uuid,
  /** Null: they are no longer staff, and stay a member. */
  role: role.nullable(),
  password: passwordAgain,
});

/** Changes what one of the staff may do, or takes the role away. There is always an owner. */
export const changeStaffRole = staffUse('set up the site')(
  'change-staff-role',
  roleSchema,
  async (actor, { memberId, role: asked, password }): Promise<Result<null>> => {
    const confirmed = await confirmStaff(actor, password);
    if (!confirmed.ok) return confirmed;
    const at = siteNow(await currentSite());
    return transactionUnlessRefused(async (db): Promise<Result<null>> => {
      // Two who take the role from one another at once find the other's change here.
      const owners = await lockOwners(db);
      if (!owners.includes(actor.memberId ?? '') && actor.kind !== 'setup')
        return refusedField('', 'staff.not-owner-now');
      const member = await lockMember(db, memberId);
      if (!member?.staffRole) return refusedField('', 'staff.gone');
      if (member.staffRole === 'owner' && asked !== 'owner' && owners.length === 1)
        return refusedField('', 'staff.last-owner');
      await setStaffRole(db, member.id, asked);
      await record(
        db,
        actor,
        at,
        asked ? 'staff role changed' : 'taken off the staff',
        `member:${member.id}`,
        {
          from: member.staffRole,
          to: asked,
        },
      );
      return done(null);
    });
  },
);

const token = z.string().max(100);

/** What an invitation is for; looking at it does not use it up. */
export const inviteAsked = publicUse('invite-asked', token, async (_, link) => {
  const invite = await findInvite(pool(), hashToken(link));
  return done(invite ? { email: invite.email, role: invite.role } : null);
});

/** Accepts an invitation, once: its reader is staff, and signed in. */
export const acceptInvite = publicUse(
  'accept-invite',
  token,
  async (actor, link): Promise<Result<Opened & { hasPassword: boolean }>> =>
    transactionUnlessRefused(async (db): Promise<Result<Opened & { hasPassword: boolean }>> => {
      const invite = await takeInvite(db, hashToken(link));
      if (!invite) return refusedField('', 'link.used');
      const known = await findMemberByEmail(db, invite.email);
      const site = await currentSite(db);
      const member: Member | undefined = known
        ? await lockMember(db, known.id)
        : await insertMember(db, {
            email: invite.email,
            name: '',
            passwordHash: null,
            staffRole: null,
            joinedAt: siteNow(site),
            emailConfirmedAt: realNow(),
          });
      if (!member || member.blockedAt) return refusedField('', 'link.used');
      const { lostPassword } = known ? await confirmEmail(db, member) : { lostPassword: false };
      await setStaffRole(db, member.id, invite.role);
      const as = { ...actor, kind: 'staff' as const, memberId: member.id, staffRole: invite.role };
      await record(db, as, siteNow(site), 'joined the staff', `member:${member.id}`, { role: invite.role });
      const opened = await openSession(db, actor, { ...member, staffRole: invite.role }, 'invitation');
      return done({ ...opened, hasPassword: member.passwordHash !== null && !lostPassword });
    }),
);
