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
import { say } from '@/words/problems';

const senderSchema = z.object({
  senderName: z
    .string()
    .trim()
    .min(1, say('mail.no-sender'))
    .max(80)
    .regex(/^[^\r\n<>"]*$/, say('mail.sender-plain')),
  senderAddress: z.email(say('mail.address')),
});

/** Who the site's mail comes from. */
export const saveSender = staffUse('change settings')(
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
    .max(150)
    .regex(/^[^\r\n]*$/, say('mail.one-line')),
  words: z.string().trim().max(4_000),
});

/** Whether a mail is sent, under which subject, and with which words of the owner before ours. */
export const saveMail = staffUse('change settings')(
  'save-mail',
  mailSchema,
  async (actor, input): Promise<Result<null>> => {
    const { template, ...setting } = input;
    const kind = mailKind(template);
    if (!kind) return refusedField('', 'mail.unknown');
    if (!setting.isOn && kind.isAlwaysSent) return refusedField('isOn', 'mail.always-on');
    const known = fieldsOf(kind);
    for (const field of ['subject', 'words'] as const) {
      const [unknown] = unknownFields(setting[field], known);
      if (unknown !== undefined)
        return refusedField(field, 'mail.unknown-field', {
          field: `{${unknown}}`,
          known: known.map((name) => `{${name}}`),
        });
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
      return refusedField('', 'mail.not-failed');
    const site = await currentSite();
    await record(pool(), actor, siteNow(site), 'mail sent again', `mail:${id}`);
    return done(null);
  },
);
