import { z } from 'zod';
import { unknownFields } from '@/core/mail-words';
import { fieldsOf, HOLDS_SECRET, mailKind } from '@/mail/catalogue';
import { pool, transaction } from '@/platform/store/db';
import { requeueMail } from '@/mail/store/mails';
import { setSender, saveMailSetting } from '@/platform/store/site';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { uuid } from '@/platform/inputs';
import { staffUse } from '@/platform/use';

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
export const saveSender = staffUse('set up the site')(
  'save-sender',
  senderSchema,
  async (actor, input): Promise<Result<null>> => {
    const site = await currentSite();
    return transaction(async (db) => {
      await setSender(db, input.senderName, input.senderAddress);
      await record(db, actor, siteNow(site), 'sender changed', 'site', input);
      return done(null);
    });
  },
);

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
export const saveMail = staffUse('set up the site')(
  'save-mail',
  mailSchema,
  async (actor, input): Promise<Result<null>> => {
    const { template, ...setting } = input;
    const kind = mailKind(template);
    if (!kind) return refusedField('', 'There is no such mail.');
    if (!setting.isOn && kind.isAlwaysSent)
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
  },
);

/** Has a mail that was given up be tried again. */
export const sendMailAgain = staffUse('manage members')(
  'send-mail-again',
  uuid,
  async (actor, id): Promise<Result<null>> => {
    if (!z.uuid().safeParse(id).success || !(await requeueMail(pool(), id, HOLDS_SECRET)))
      return refusedField('', 'This email is being sent, was sent, or is no longer stored.');
    const site = await currentSite();
    await record(pool(), actor, siteNow(site), 'mail sent again', `mail:${id}`);
    return done(null);
  },
);
