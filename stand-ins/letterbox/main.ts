import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { serveAndSay } from '../lib/http';
import { addressOf, letterPage, listPage, oneClickUrlOf, type Letter } from './pages';

/** Usage: letterbox SMTP-PORT WEB-PORT */
const [smtpPort, webPort] = process.argv.slice(2).map(Number);
if (!smtpPort || !webPort) {
  console.error('Letterbox needs a port for mail and a port for its page.');
  process.exit(1);
}

const KEPT = 5_000;
const letters: Letter[] = [];

const smtp = new SMTPServer({
  disabledCommands: ['AUTH', 'STARTTLS'],
  onData(stream, session, done) {
    simpleParser(stream)
      .then((mail) => {
        letters.unshift({
          id: String(letters.length + 1),
          to: session.envelope.rcptTo.map((r) => r.address).join(', '),
          from: addressOf(mail.from),
          subject: mail.subject ?? '',
          date: (mail.date ?? new Date()).toISOString(),
          text: mail.text ?? '',
          oneClickUrl: oneClickUrlOf(mail),
          html: typeof mail.html === 'string' ? mail.html : '',
        });
        letters.length = Math.min(letters.length, KEPT);
        done();
      })
      .catch((error: unknown) => done(error instanceof Error ? error : new Error(String(error))));
  },
});

smtp.listen(smtpPort, '127.0.0.1');
await serveAndSay('Letterbox', webPort, (_, response, url) => {
  const send = (type: string, body: string, status = 200): void => {
    response
      .writeHead(status, { 'content-type': `${type}; charset=utf-8`, 'cache-control': 'no-store' })
      .end(body);
  };
  const to = url.searchParams.get('to') ?? '';
  const found = letters.filter((letter) => letter.to.includes(to));
  const [, kind, id] = url.pathname.split('/');
  const letter = letters.find((l) => l.id === id);
  if (url.pathname === '/') send('text/html', listPage(found, to));
  else if (url.pathname === '/letters.json') send('application/json', JSON.stringify(found));
  else if (kind === 'letters' && letter) send('text/html', letterPage(letter));
  else if (kind === 'off' && letter?.oneClickUrl)
    fetch(letter.oneClickUrl, {
      method: 'POST',
      body: new URLSearchParams({ 'List-Unsubscribe': 'One-Click' }),
    })
      .then(({ ok }) => send('text/plain', ok ? 'Unsubscribed.' : 'The site did not take it.'))
      .catch(() => send('text/plain', 'The site did not answer.', 502));
  else if (kind === 'raw' && letter) send('text/html', letter.html);
  else send('text/plain', 'No such letter.', 404);
});

for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
