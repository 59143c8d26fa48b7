import { z } from 'zod';
import { transaction, pool } from '@/store/db';
import { findMember, findMemberByEmail, setCountry, setDetails, setPassword } from '@/store/members';
import { spendPoint, type Limit } from '@/store/rate-limits';
import { deleteSessionsOf } from '@/store/sessions';
import { NotAllowed, type Actor } from './actor';
import { siteNow } from './clock';
import { isCountry } from './countries';
import { hashPassword, MAX_PASSWORD, MIN_PASSWORD, passwordMatches } from './passwords';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { waitWords } from './sign-in';
import { currentSite } from './site';
import { writeMail } from './write-mail';

const TRIES: Limit = { name: 'password:change', points: 10, seconds: 15 * 60 };
const WRONG = 'This is not the password you have now.';

const detailsSchema = z.object({
  name: z.string().trim().max(120, 'A name has at most 120 characters.'),
  email: z.email('Type an e-mail address, like ines@moor.example.').transform((email) => email.toLowerCase()),
  password: z.string().max(MAX_PASSWORD).default(''),
  /** Left out, they stay. */
  country: z
    .string()
    .refine((code) => code === '' || isCountry(code), 'Choose a country.')
    .optional(),
  invoiceWords: z.string().trim().max(300, 'At most 300 characters.').optional(),
});

/** A member changes their own name and address. Another address needs the password, and the old one is told. */
export async function changeDetails(actor: Actor, raw: unknown): Promise<Result<null>> {
  const parsed = detailsSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const { name, email, password, country, invoiceWords } = parsed.data;
  const member = await ownMember(actor);
  const isNew = email !== member.email;
  if (isNew) {
    const checked = await checkPassword(member, password, 'password');
    if (!checked.ok) return checked;
    if (await findMemberByEmail(pool(), email))
      return refusedField('email', 'This address cannot be used here. Choose another.');
  }
  const site = await currentSite();
  await transaction(async (db) => {
    await setDetails(db, member.id, { name, email, invoiceWords: invoiceWords ?? member.invoiceWords });
    if (country !== undefined && country !== member.country) await setCountry(db, member.id, country);
    const at = siteNow(site);
    await record(db, actor, at, 'details changed', `member:${member.id}`, { address: isNew });
    if (isNew)
      await writeMail(
        db,
        site,
        member,
        { template: 'address-changed', email },
        `address:${member.id}:${at}`,
        at,
      );
  });
  return done(null);
}

const passwordSchema = z.object({
  current: z.string().max(MAX_PASSWORD).default(''),
  next: z
    .string()
    .min(MIN_PASSWORD, `A password has at least ${MIN_PASSWORD} characters.`)
    .max(MAX_PASSWORD, 'This password is too long.'),
});

/** A member sets another password. Every session ends, and whoever calls starts a new one. */
export async function changePassword(actor: Actor, raw: unknown): Promise<Result<{ memberId: string }>> {
  const parsed = passwordSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const { current, next } = parsed.data;
  const member = await ownMember(actor);
  // Whoever has none yet has proved who they are by a mailed link.
  if (member.passwordHash !== null) {
    const checked = await checkPassword(member, current, 'current');
    if (!checked.ok) return checked;
  }
  const site = await currentSite();
  const passwordHash = await hashPassword(next);
  await transaction(async (db) => {
    await setPassword(db, member.id, passwordHash);
    await deleteSessionsOf(db, member.id);
    await record(db, actor, siteNow(site), 'password changed', `member:${member.id}`);
  });
  return done({ memberId: member.id });
}

/** Ends every session of a member, on every device. */
export async function signOutEverywhere(actor: Actor): Promise<void> {
  const member = await ownMember(actor);
  const site = await currentSite();
  await transaction(async (db) => {
    await deleteSessionsOf(db, member.id);
    await record(db, actor, siteNow(site), 'signed out everywhere', `member:${member.id}`);
  });
}

async function ownMember(actor: Actor) {
  const member = actor.memberId ? await findMember(pool(), actor.memberId) : undefined;
  if (!member) throw new NotAllowed('Sign in first.');
  return member;
}

async function checkPassword(
  { id, passwordHash }: { id: string; passwordHash: string | null },
  typed: string,
  field: string,
): Promise<Result<null>> {
  const wait = await spendPoint(TRIES, id);
  if (wait > 0) return refusedField(field, `Too many tries. Wait ${waitWords(wait)}, then try again.`);
  return (await passwordMatches(passwordHash, typed)) ? done(null) : refusedField(field, WRONG);
}
