import { mergeWords, paragraphs, type MailSetting, type MergeFields } from '@/core/mail-words';
import { mailDate, mailWords, type MailContent } from './catalogue';
import type { MailFrame, MailWords } from './define';

/** The values of a mail's merge fields; its definition says which it has. */
export function mergeFieldsOf(mail: MailContent, frame: MailFrame): MergeFields {
  const fields: MergeFields = {
    'first name': frame.firstName || frame.t('mails.there'),
    name: frame.name || frame.firstName || frame.t('mails.there'),
    email: frame.email,
    site: frame.siteName,
  };
  if ('tierName' in mail) fields.tier = mail.tierName;
  if ('amount' in mail) fields.amount = frame.t.money(mail.amount, mail.currency);
  const at = mailDate(mail);
  if (at) fields.date = frame.t.date(at);
  return fields;
}

/** A mail's words with the owner's own among them: their subject in place of ours, their words before ours. */
export function wordsWith(
  ours: MailWords,
  fields: MergeFields,
  own: Pick<MailSetting, 'subject' | 'words'> | undefined,
): MailWords {
  return {
    ...ours,
    subject: own?.subject ? mergeWords(own.subject, fields).replace(/\s+/g, ' ') : ours.subject,
    lines: [...paragraphs(own?.words ?? '').map((line) => mergeWords(line, fields)), ...ours.lines],
  };
}

/** How a mail begins. */
export const helloTo = ({ t, firstName }: Pick<MailFrame, 't' | 'firstName'>): string =>
  t('mails.hello', { name: firstName || 'none' });

const escape = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** The mail as subject, plain part and HTML part. Everything a person typed is escaped in the HTML. */
export function renderMail(
  mail: MailContent,
  frame: MailFrame,
  own?: Pick<MailSetting, 'subject' | 'words'>,
): { subject: string; text: string; html: string } {
  return renderWords(wordsWith(mailWords(mail, frame), mergeFieldsOf(mail, frame), own), frame);
}

/** Words as subject, plain part and HTML part. */
export function renderWords(
  { subject, isGreeted, lines, body, code, link }: MailWords,
  frame: MailFrame,
): { subject: string; text: string; html: string } {
  const url = `${frame.siteUrl}${link.path}`;
  const hello = isGreeted === false ? [] : [helloTo(frame)];
  const off = frame.off && { label: frame.off.label, url: `${frame.siteUrl}${frame.off.path}` };
  const text = [
    ...hello,
    ...(code ? [code] : []),
    ...lines,
    ...(body ? [body.text] : []),
    `${link.label}: ${url}`,
    frame.siteName,
    ...(off ? [`${off.label}: ${off.url}`] : []),
  ].join('\n\n');
  const footer = off
    ? `<p style="margin:16px 0 0;font-size:14px"><a href="${escape(off.url)}" style="color:#5B6B6E">${escape(off.label)}</a></p>`
    : '';
  const seen = frame.seenPath
    ? `<img src="${escape(frame.siteUrl + frame.seenPath)}" width="1" height="1" alt="">`
    : '';
  const paragraph = (line: string): string => `<p style="margin:0 0 16px">${escape(line)}</p>`;
  const large = code
    ? `<p style="margin:0 0 16px;font:bold 32px/1.2 monospace;letter-spacing:0.2em">${escape(code)}</p>`
    : '';
  const paragraphsOf =
    hello.map(paragraph).join('') + large + lines.map(paragraph).join('') + (body?.html ?? '');
  const html = `<!doctype html><html lang="${frame.t.locale}"><body style="margin:0;background:#F6F3EC;color:#1D2B2F;font:16px/1.6 Georgia,serif">
<div style="max-width:560px;margin:0 auto;padding:32px 24px"><p style="margin:0 0 24px;font-size:18px;font-weight:bold">${escape(frame.siteName)}</p>
<div style="background:#FFFDF8;border:1px solid #DCD5C6;padding:24px">${paragraphsOf}
<p style="margin:0"><a href="${escape(url)}" style="color:#1F5A4C">${escape(link.label)}</a></p></div>${footer}${seen}</div></body></html>`;
  return { subject, text, html };
}

/** A mail as it may be stored and shown: without the secret that grants access. Null: it holds none. */
export function withoutSecret(mail: MailContent): MailContent | null {
  if (!('secret' in mail)) return null;
  const code = mail.secret.code && '••••••';
  return { ...mail, secret: { path: '/ (only its reader has this link)', ...(code && { code }) } };
}
