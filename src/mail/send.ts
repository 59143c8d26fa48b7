import { createTransport, type Transporter } from 'nodemailer';
import { config } from '@/platform/config';

export type Letter = {
  id: string;
  from: { name: string; address: string };
  to: string;
  subject: string;
  text: string;
  html: string;
  /** The address to which a mail program posts to turn such mails off (RFC 8058). */
  oneClickUrl?: string;
};

let transport: Transporter | undefined;

/** Hands one mail to the mail server. Its Message-ID holds the id, so that a duplicate can be recognised. @throws where it was not accepted */
export async function sendLetter(letter: Letter): Promise<void> {
  transport ??= createTransport({ url: config().SMTP_URL, connectionTimeout: 10_000, socketTimeout: 20_000 });
  await transport.sendMail({
    messageId: `<${letter.id}@${new URL(config().SITE_URL).hostname}>`,
    from: letter.from,
    to: letter.to,
    subject: letter.subject,
    text: letter.text,
    html: letter.html,
    ...(letter.oneClickUrl && {
      headers: {
        'List-Unsubscribe': `<${letter.oneClickUrl}>`,
        'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
      },
    }),
  });
}

/** Forgets the connection to the mail server, so that the next mail opens a new one. */
export function closeTransport(): void {
  transport?.close();
  transport = undefined;
}
