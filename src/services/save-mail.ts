import { z } from 'zod';
import { unknownFields } from '@/core/mail-words';
import { fieldsOf, mailKind } from '@/mail/catalogue';
import { pool, transaction } from '@/store/db';
import { requeueMail, saveMailSetting } from '@/store/mails';
import { setSender } from '@/store/site';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { currentSite } from './site';

const senderSchema = z.object({
  senderName: z
    .string()
    .trim()
    .min(1, 'Name the sender: members see it beside the subject.')
    .max(80, 'At most 80 characters.')
    .regex(/^[^\r\n<>"]*$/, 'Without quotes, angle brackets and line ends.'),
  senderAddress: z.email('Type the address mail comes from, like post@moor.example.'),
});

/** Who the site's mail comes from. */
export async function saveSender(actor: Actor, raw: unknown): Promise<Result<null>> {
  requireRight(actor, 'set up the site');
  const parsed = senderSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const site = await currentSite();
  return transaction(async (db) => {
    await setSender(db, parsed.data.senderName, parsed.data.senderAddress);
    await record(db, actor, siteNow(site), 'sender changed', 'site', parsed.data);
    return done(null);
  });
}

const mailSchema = z.object({
  template: z.string(),
  isOn: z.boolean(),
  subject: z
    .string()
    .trim()
    .max(150, 'A subject has at most 150 characters.')
    .regex(/^[^\r\n]*$/, 'A subject is one line.'),
  words: z.string().trim().max(4_000, 'At most 4,000 characters.'),
});

/** Whether a mail is sent, under which subject, and with which words of the owner before ours. */
export async function saveMail(actor: Actor, raw: unknown): Promise<Result<null>> {
  requireRight(actor, 'set up the site');
  const parsed = mailSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const { template, ...setting } = parsed.data;
  const kind = mailKind(template);
  if (!kind) return refusedField('', 'There is no such mail.');
  if (!setting.isOn && !kind.canBeOff)
    return refusedField('isOn', 'This mail cannot be switched off: something hangs on it.');
  const known = fieldsOf(kind);
  for (const field of ['subject', 'words'] as const) {
    const [unknown] = unknownFields(setting[field], known);
    if (unknown !== undefined)
      return refusedField(
        field,
        `This mail has nothing to put in for {${unknown}}. It knows ${known.map((name) => `{${name}}`).join(', ')}.`,
      );
  }
  const site = await currentSite();
  return transaction(async (db) => {
    await saveMailSetting(db, template, setting);
    await record(db, actor, siteNow(site), 'mail changed', `mail:${template}`, { isOn: setting.isOn });
    return done(null);
  });
}

/** Has a mail that was given up be tried again. */
export async function sendMailAgain(actor: Actor, id: string): Promise<Result<null>> {
  requireRight(actor, 'manage members');
  if (!z.uuid().safeParse(id).success || !(await requeueMail(pool(), id)))
    return refusedField('', 'This mail is on its way, or was sent, or is not kept any more.');
  const site = await currentSite();
  await record(pool(), actor, siteNow(site), 'mail sent again', `mail:${id}`);
  return done(null);
}
