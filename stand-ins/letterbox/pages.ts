import type { ParsedMail } from 'mailparser';

export type Letter = {
  id: string;
  to: string;
  from: string;
  subject: string;
  date: string;
  text: string;
  html: string;
  /** Where one click turns such mails off (RFC 8058); '' where they cannot be. */
  oneClickUrl: string;
};

/** The address that a mail names for one click, where it says that a post to it is enough. */
export function oneClickUrlOf(mail: ParsedMail): string {
  const header = (key: string): string => mail.headerLines.find((line) => line.key === key)?.line ?? '';
  if (!/:\s*List-Unsubscribe=One-Click\s*$/i.test(header('list-unsubscribe-post'))) return '';
  return /<(https?:[^>]+)>/.exec(header('list-unsubscribe').replace(/\s+/g, ''))?.[1] ?? '';
}

const escape = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

export const addressOf = (from: ParsedMail['from']): string => from?.text ?? '';

export function listPage(letters: Letter[], to: string): string {
  const rows = letters.map(
    (l) =>
      `<li><a href="/letters/${l.id}"><b>${escape(l.subject)}</b><span>${escape(l.to)}</span><time>${l.date.slice(0, 16).replace('T', ' ')}</time></a></li>`,
  );
  const list = rows.length > 0 ? `<ul>${rows.join('')}</ul>` : '<p>No mail here yet.</p>';
  return page(
    'Letterbox',
    `<h1>Letterbox</h1><p>Mail that the site sent. Nothing leaves this machine.</p>
    <form><input name="to" value="${escape(to)}" placeholder="to whom" aria-label="To whom"> <button>Show</button></form>${list}`,
  );
}

export function letterPage(letter: Letter): string {
  return page(
    letter.subject,
    `<p><a href="/">All mail</a></p><h1>${escape(letter.subject)}</h1>
    <p>From ${escape(letter.from)}<br>To ${escape(letter.to)}<br>${letter.date}</p>${letter.oneClickUrl && `<form method="post" action="/off/${letter.id}"><button>Unsubscribe</button></form>`}
    <iframe sandbox title="The mail" src="/raw/${letter.id}"></iframe><h2>Plain part</h2><pre>${escape(letter.text)}</pre>`,
  );
}

function page(title: string, body: string): string {
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escape(title)}</title><style>
    :root { color-scheme: light dark; font: 15px/1.5 system-ui, sans-serif; } body { max-width: 64rem; margin: 2rem auto; padding: 0 1rem; background: light-dark(#eef1f4, #14171a); }
    h1 { margin-bottom: 0; } h1 + p { margin-top: .2rem; opacity: .7; } input, button { font: inherit; padding: .45rem .7rem; border: 1px solid #8886; border-radius: .4rem; }
    ul { list-style: none; padding: 0; background: light-dark(#fff, #1d2125); border: 1px solid #8883; border-radius: .5rem; } li a { display: grid; grid-template-columns: 1fr 18rem auto; gap: 1rem; padding: .65rem 1rem; color: inherit; text-decoration: none; } li + li a { border-top: 1px solid #8883; } time { white-space: nowrap; }
    li a:hover b { text-decoration: underline; } span, time { opacity: .7; } iframe { width: 100%; height: 26rem; border: 1px solid #8884; background: #fff; } pre { white-space: pre-wrap; }
  </style><body>${body}</body></html>`;
}
