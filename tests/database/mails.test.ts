import { randomUUID } from 'node:crypto';
import { createServer, type AddressInfo } from 'node:net';
import { closeTransport } from '../../src/mail/send';
import { config } from '../../src/platform/config';
import { WORKER } from '../../src/platform/actor';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Stack } from '../../scripts/lib/stack';
import { saveLetter } from '../../src/members/services/letters';
import { fromText } from '../../src/core/content/prose';
import { mailLog } from '../../src/mail/services/mail-log';
import { sendMailAgain } from '../../src/mail/services/save-mail';
import { claimMails, handMail, queueMail } from '../../src/mail/store/mails';
import { pool } from '../../src/platform/store/db';
import { sendMails } from '../../src/mail/services/send-mails';
import { join, lanternMoor, rows, value } from './lantern-moor';

const moor = lanternMoor();
const stack = new Stack('mail-test');
let letterbox: string;

beforeAll(async () => {
  const { smtpUrl, letterboxUrl } = await stack.letterbox(4390, 4395);
  letterbox = letterboxUrl;
  process.env.LETTERBOX_SMTP = smtpUrl;
});
afterAll(() => stack.stop());

const mail = (dedupeKey: string) => ({
  dedupeKey,
  memberId: null,
  toAddress: 'maren@moor.example',
  template: 'welcome',
  subject: `About ${dedupeKey}`,
  textBody: 'Plain words',
  htmlBody: '<p>Rich words</p>',
  sealed: null,
  topic: null,
  at: '2027-01-01T00:00:00Z' as const,
});

const newLetter = async (): Promise<string> =>
  value(
    await saveLetter(moor.owner, {
      id: null,
      subject: 'Thaw',
      body: fromText('The ice is gone.'),
      filter: {},
      toAddresses: false,
    }),
  ).id;

/** A mail server that takes the whole text and hangs up instead of answering. */
const vanishing = () =>
  createServer((socket) => {
    let isText = false;
    socket.write('220 here\r\n');
    socket.on('data', (sent) => {
      const said = sent.toString();
      if (isText && said.includes('\r\n.\r\n')) return void socket.destroy();
      if (isText) return;
      isText = /^DATA/m.test(said);
      socket.write(isText ? '354 go on\r\n' : '250 yes\r\n');
    });
    socket.on('error', () => {});
  });

describe('mails', () => {
  it('that cannot be sent are kept, tried again later, and say why', async () => {
    await queueMail(pool(), mail('first'));
    expect(value(await sendMails(WORKER))).toBe(1);
    const [row] = await rows<{ state: string; attempts: number; last_error: string; waits: boolean }>(
      `SELECT state, attempts, last_error, next_attempt_at > now() + interval '5 seconds' AS waits FROM mails`,
    );
    expect(row).toMatchObject({ state: 'queued', attempts: 1, waits: true });
    expect(row?.last_error).toContain('ECONNREFUSED');
    expect(value(await sendMails(WORKER))).toBe(0);
  });

  it('about the same news are queued once', async () => {
    await queueMail(pool(), mail('twice'));
    await queueMail(pool(), mail('twice'));
    expect(await rows(`SELECT 1 FROM mails WHERE dedupe_key = 'twice'`)).toHaveLength(1);
  });

  it('that the server takes arrive once, from the site, with both parts', async () => {
    // The mail server comes back: the same mails are sent to where it is now.
    closeTransport();
    Object.assign(config(), { SMTP_URL: process.env.LETTERBOX_SMTP });
    await pool().query(`UPDATE mails SET next_attempt_at = now()`);
    const { email, memberId } = await join(moor, 'gazer-free', null);
    await queueMail(pool(), { ...mail('talk'), memberId, topic: 'comments', toAddress: 'talk@moor.example' });
    const sent = await Promise.all([sendMails(WORKER), sendMails(WORKER)]);
    expect(sent.map(value).reduce((a, b) => a + b)).toBe(4);
    type Letter = {
      to: string;
      oneClickUrl: string;
      from: string;
      subject: string;
      text: string;
      html: string;
    };
    const letters = (await (await fetch(`${letterbox}/letters.json`)).json()) as Letter[];
    expect(letters.map((letter) => letter.to).sort()).toEqual(
      ['maren@moor.example', 'maren@moor.example', 'talk@moor.example', email].sort(),
    );
    expect(letters.find((letter) => letter.to === email)).toMatchObject({
      from: expect.stringContaining('Lantern Moor') as string,
      subject: expect.stringContaining('Welcome') as string,
    });
    // What can be turned off says so to mail programs (RFC 8058), and nothing else does.
    const offUrl = letters.find(({ to }) => to === 'talk@moor.example')?.oneClickUrl;
    expect(offUrl).toMatch(/^http:.*\/api\/mail-off\/[\w-]{20,}$/);
    expect(letters.filter(({ oneClickUrl }) => oneClickUrl)).toHaveLength(1);
    expect(letters.find((letter) => letter.subject === 'About first')).toMatchObject({
      text: expect.stringContaining('Plain') as string,
      html: expect.stringContaining('Rich') as string,
    });
    expect(await rows(`SELECT DISTINCT state FROM mails`)).toEqual([{ state: 'sent' }]);
  });

  it('of a letter is not sent twice where the worker dies before it notes the answer; staff see it and can send it again', async () => {
    await pool().query('DELETE FROM mails');
    await queueMail(pool(), { ...mail('of a letter'), letterId: await newLetter() });
    const arrived = async (): Promise<number> => {
      const letters = (await (await fetch(`${letterbox}/letters.json`)).json()) as { subject: string }[];
      return letters.filter(({ subject }) => subject === 'About of a letter').length;
    };
    await rows(
      'CREATE FUNCTION die() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RAISE EXCEPTION $x$died$x$; END $$',
    );
    await rows(
      `CREATE TRIGGER die BEFORE UPDATE ON mails FOR EACH ROW WHEN (NEW.state = 'sent') EXECUTE FUNCTION die()`,
    );
    await expect(sendMails(WORKER)).rejects.toThrow('died');
    await rows('DROP TRIGGER die ON mails');
    expect(await arrived()).toBe(1);
    const endLeases = () => rows('UPDATE mails SET next_attempt_at = now()');
    expect(value(await sendMails(WORKER))).toBe(0);
    await endLeases();
    await Promise.all([sendMails(WORKER), sendMails(WORKER)]);
    expect(await arrived()).toBe(1);
    const [given] = await rows<{ id: string; state: string; last_error: string }>(
      'SELECT id, state, last_error FROM mails',
    );
    expect(given).toMatchObject({
      state: 'failed',
      last_error: expect.stringContaining('may have arrived') as string,
    });
    const [{ letter_id: letter } = { letter_id: '' }] = await rows<{ letter_id: string }>(
      'SELECT letter_id FROM mails',
    );
    const listed = async (of: string) =>
      value(await mailLog(moor.owner, { state: 'failed', search: '', letter: of, page: 1 })).total;
    expect([await listed(letter), await listed(randomUUID())]).toEqual([1, 0]);
    value(await sendMailAgain(moor.owner, given?.id));
    await sendMails(WORKER);
    expect(await arrived()).toBe(2);
  });

  it('of a letter is given up where the server vanishes once it has the text; a receipt is tried again', async () => {
    await pool().query('DELETE FROM mails');
    const server = vanishing();
    const { port } = await new Promise<AddressInfo>((resolve) => {
      server.listen(0, '127.0.0.1', () => resolve(server.address() as AddressInfo));
    });
    closeTransport();
    Object.assign(config(), { SMTP_URL: `smtp://127.0.0.1:${port}` });
    await queueMail(pool(), { ...mail('many'), letterId: await newLetter() });
    await queueMail(pool(), mail('one'));
    await sendMails(WORKER);
    expect(await rows('SELECT dedupe_key, state FROM mails ORDER BY dedupe_key')).toEqual([
      { dedupe_key: 'many', state: 'failed' },
      { dedupe_key: 'one', state: 'queued' },
    ]);
    server.close();
    closeTransport();
    Object.assign(config(), { SMTP_URL: process.env.LETTERBOX_SMTP });
  });

  it('of a letter that another worker has taken meanwhile is left to it', async () => {
    await pool().query('DELETE FROM mails');
    await queueMail(pool(), { ...mail('taken'), letterId: await newLetter() });
    const [slow] = await claimMails(pool(), 1, 0);
    const [quick] = await claimMails(pool(), 1, 60);
    if (!slow || !quick) throw new Error('the mail was not claimed twice');
    expect(await handMail(pool(), slow, 60)).toBe(false);
    expect(await handMail(pool(), quick, 60)).toBe(true);
    expect(await handMail(pool(), quick, 60)).toBe(false);
  });

  it('shows its letters on a page, with what people typed escaped', async () => {
    const page = await (await fetch(`${letterbox}/?to=${encodeURIComponent('"><script>')}`)).text();
    expect(page).toContain('No mail here yet.');
    expect(page).not.toContain('<script>');
    expect((await fetch(`${letterbox}/letters/999`)).status).toBe(404);
  });
});
