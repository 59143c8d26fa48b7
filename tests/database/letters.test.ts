import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { viewItem } from '../../src/access/services/view-item';
import { leaveAddress, takeReadLink } from '../../src/access/services/get-pass';
import { saveRule } from '../../src/access/services/save-rule';
import { savePass } from '../../src/access/services/passes';
import { saveCategory } from '../../src/content/services/categories';
import { saveItem } from '../../src/content/services/save-item';
import { trashItems } from '../../src/content/services/trash-items';
import { fromText, type Node, type Prose } from '../../src/core/content/prose';
import {
  mailOffLink,
  myMailTopics,
  setMailTopic,
  setMyMailTopic,
  turnMailOff,
} from '../../src/mail/services/mail-topics';
import { addMember } from '../../src/members/services/add-member';
import { askForMails, confirmMails, mailLink } from '../../src/members/services/ask-for-mails';
import { blockMember } from '../../src/members/services/block-member';
import { letterRead, letterSeen, lettersOpenedBy } from '../../src/members/services/letter-opens';
import { saveLetterSettings } from '../../src/members/services/letter-settings';
import {
  deleteLetter,
  letterPage,
  lettersPlace,
  newLetter,
  saveLetter,
} from '../../src/members/services/letters';
import { addressesPlace, removeAddress } from '../../src/members/services/mail-addresses';
import { mailPost, postMail } from '../../src/members/services/mail-post';
import { memberFile } from '../../src/members/services/member-file';
import { myData } from '../../src/members/services/my-data';
import { removeMember } from '../../src/members/services/remove-member';
import { holdLetter, sendLetter, tryLetter } from '../../src/members/services/send-letter';
import { writeLetters } from '../../src/members/services/write-letters';
import { SETUP, VISITOR_ACTOR, WORKER, type Actor } from '../../src/platform/actor';
import { unseal } from '../../src/platform/seal';
import { asMember, join, lanternMoor, memberNamed, newPerson, passDays, rows, value } from './lantern-moor';

const moor = lanternMoor();
let observer: Actor;
let gazer: Actor;
let nobody: Actor;

type Mailed = { to_address: string; subject: string; text_body: string; html_body: string; topic: string };
const mailed = (letterId: string): Promise<Mailed[]> =>
  rows<Mailed>(
    'SELECT to_address, subject, text_body, html_body, topic FROM mails WHERE letter_id = $1 ORDER BY to_address',
    [letterId],
  );
const emailOf = async ({ memberId }: Actor): Promise<string> =>
  (await rows<{ email: string }>('SELECT email FROM members WHERE id = $1', [memberId]))[0]?.email ?? '';
const wants = async (actor: Actor, isOff = false): Promise<void> =>
  void value(await setMyMailTopic(actor, { topic: 'letters', isOff }));
/** Writes until nothing is left, whatever the rate. */
async function writeAll(): Promise<void> {
  for (;;) {
    await rows('UPDATE letters SET next_at = now()');
    if (value(await writeLetters(WORKER)) === 0) return;
  }
}
const draft = async (more: object = {}): Promise<{ id: string; version: number }> => {
  const { id } = value(
    await saveLetter(moor.owner, {
      id: null,
      subject: 'Frost, {first name}',
      body: fromText('Dear {name}, the dome is frozen shut.'),
      filter: {},
      toAddresses: false,
      ...more,
    }),
  );
  return { id, version: value(await letterPage(moor.owner, id)).letter.version };
};
const begin = async (more: object = {}): Promise<string> => {
  const { id, version } = await draft(more);
  value(await sendLetter(moor.owner, { id, version }));
  return id;
};
const stateOf = async (id: string): Promise<string> => value(await letterPage(moor.owner, id)).letter.state;
let posts = 0;
async function post(body: Prose, more: object = {}): Promise<string> {
  return value(
    await saveItem(SETUP, {
      type: 'post',
      title: `First light ${++posts}`,
      publish: 'publish',
      body,
      ...more,
    }),
  ).id;
}
const closeTo = async (itemId: string, more: object = {}): Promise<void> =>
  void value(
    await saveRule(SETUP, {
      id: `rule-${itemId}`.slice(0, 60),
      name: `Rule of ${itemId}`,
      on: true,
      covers: [{ kind: 'item', id: itemId }],
      openTo: [{ who: { kind: 'tier', id: 'observer' } }],
      ...more,
    }),
  );

beforeAll(async () => {
  observer = asMember((await join(moor, 'observer-monthly', 'works')).memberId);
  gazer = asMember((await join(moor, 'gazer-free', null)).memberId);
  nobody = await newPerson('Nobody Yet');
});
beforeEach(() =>
  rows(`UPDATE letters SET state = 'stopped', done_at = now() WHERE state IN ('sending', 'paused')`),
);

describe('a letter', () => {
  it('goes only to those of its list who asked for letters, with their own name, and a link to stop them', async () => {
    await wants(observer);
    const { reach } = value(await newLetter(moor.owner, {}));
    expect(reach).toMatchObject({ members: 1 });
    expect(reach.listed).toBeGreaterThan(1);
    const id = await begin();
    await writeAll();
    const [one, ...others] = await mailed(id);
    expect(others).toEqual([]);
    expect(one).toMatchObject({ to_address: await emailOf(observer), topic: 'letters' });
    expect(one?.subject).not.toContain('{');
    expect(one?.text_body).toMatch(/Dear (?!\{)/);
    expect(one?.text_body).toMatch(/Stop getting letters by email: http\S+\/mail-off\//);
    expect(await stateOf(id)).toBe('sent');
  });

  it('can be turned off by one click, and on again by them alone', async () => {
    await wants(observer);
    const id = await begin();
    await writeAll();
    const [one] = await mailed(id);
    const token = /\/mail-off\/([\w-]+)/.exec(one?.text_body ?? '')?.[1] ?? '';
    expect(value(await mailOffLink(VISITOR_ACTOR, token))).toEqual({ topic: 'letters', isOn: true });
    value(await turnMailOff(VISITOR_ACTOR, { token, isOff: true }));
    expect(value(await myMailTopics(observer)).find(({ topic }) => topic === 'letters')?.isOn).toBe(false);
    const again = await begin();
    await writeAll();
    expect(await mailed(again)).toEqual([]);
    // Staff cannot overrule that.
    const memberId = observer.memberId;
    expect(await setMailTopic(moor.owner, { memberId, topic: 'letters', isOn: true })).toMatchObject({
      problems: { '': { code: 'mail.turned-off-themselves' } },
    });
    // But they can for someone who chose nothing.
    value(await setMailTopic(moor.owner, { memberId: gazer.memberId, topic: 'letters', isOn: true }));
    const third = await begin();
    await writeAll();
    expect((await mailed(third)).map(({ to_address }) => to_address)).toEqual([await emailOf(gazer)]);
    value(await setMailTopic(moor.owner, { memberId: gazer.memberId, topic: 'letters', isOn: false }));
  });

  it('keeps to the filter it was written to, and to those who are not blocked or removed', async () => {
    await wants(observer);
    await wants(gazer);
    const toObservers = await begin({ filter: { tier: 'observer' } });
    await writeAll();
    expect((await mailed(toObservers)).map(({ to_address }) => to_address)).toEqual([
      await emailOf(observer),
    ]);
    const blocked = await newPerson('Blocked One');
    const gone = await newPerson('Gone One');
    await wants(blocked);
    await wants(gone);
    value(await blockMember(moor.owner, blocked.memberId));
    value(await removeMember(moor.owner, gone.memberId));
    const all = await begin();
    await writeAll();
    expect((await mailed(all)).map(({ to_address }) => to_address).sort()).toEqual(
      [await emailOf(observer), await emailOf(gazer)].sort(),
    );
  });

  it('is written once to each by several workers, and resumes after a crash where it stopped', async () => {
    const many = [];
    for (let n = 0; n < 30; n++) {
      const one = await newPerson(`Reader ${n}`, `reader${n}@crowd.example`);
      await wants(one);
      many.push(one);
    }
    value(
      await saveLetterSettings(moor.owner, { lettersPerMinute: 120, asksLetters: false, countsOpens: false }),
    );
    const id = await begin({ filter: { q: 'crowd.example' } });
    // A crash before the transaction ends leaves nothing: the first few are written anew.
    await rows(
      'CREATE FUNCTION fail() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RAISE EXCEPTION $x$crash$x$; END $$',
    );
    await rows(
      'CREATE TRIGGER crash BEFORE UPDATE OF written ON letters FOR EACH ROW EXECUTE FUNCTION fail()',
    );
    await expect(writeLetters(WORKER)).rejects.toThrow('crash');
    await rows('DROP TRIGGER crash ON letters');
    expect(await mailed(id)).toEqual([]);
    for (let round = 0; round < 12; round++) {
      await rows('UPDATE letters SET next_at = now()');
      await Promise.all([writeLetters(WORKER), writeLetters(WORKER), writeLetters(WORKER)]);
    }
    expect(await mailed(id)).toHaveLength(30);
    expect(value(await letterPage(moor.owner, id)).letter).toMatchObject({ state: 'sent', written: 30 });
  });

  it('keeps to the rate of the owner, is paused, resumed and stopped', async () => {
    value(
      await saveLetterSettings(moor.owner, { lettersPerMinute: 60, asksLetters: false, countsOpens: false }),
    );
    const id = await begin({ filter: { q: 'crowd.example' } });
    value(await writeLetters(WORKER));
    expect(await mailed(id)).toHaveLength(5);
    // The next five may be written in five seconds.
    expect(value(await writeLetters(WORKER))).toBe(0);
    const [{ seconds } = { seconds: 0 }] = await rows<{ seconds: number }>(
      'SELECT extract(epoch FROM next_at - now())::float AS seconds FROM letters WHERE id = $1',
      [id],
    );
    expect(seconds).toBeGreaterThan(3);
    expect(seconds).toBeLessThanOrEqual(5);
    value(await holdLetter(moor.owner, { id, deed: 'pause' }));
    await writeAll();
    expect(await mailed(id)).toHaveLength(5);
    value(await holdLetter(moor.owner, { id, deed: 'resume' }));
    value(await writeLetters(WORKER));
    expect(await mailed(id)).toHaveLength(10);
    value(await holdLetter(moor.owner, { id, deed: 'stop' }));
    await writeAll();
    expect(await mailed(id)).toHaveLength(10);
    expect(await holdLetter(moor.owner, { id, deed: 'resume' })).toMatchObject({
      problems: { '': { code: 'letter.over' } },
    });
  });

  it('is sent as it was looked at; pressed twice it is sent once; sent, it can no longer be changed or deleted', async () => {
    const { id, version } = await draft({ filter: { tier: 'observer' } });
    const text = { id, subject: 'Thaw', body: fromText('It opened.'), toAddresses: false };
    value(await saveLetter(moor.owner, { ...text, version }));
    expect(await sendLetter(moor.owner, { id, version })).toMatchObject({
      problems: { '': { code: 'letter.changed-elsewhere' } },
    });
    expect(await saveLetter(moor.owner, { ...text, version })).toMatchObject({
      problems: { '': { code: 'letter.changed-elsewhere' } },
    });
    const both = [
      sendLetter(moor.owner, { id, version: version + 1 }),
      sendLetter(moor.owner, { id, version: version + 1 }),
    ];
    for (const answer of await Promise.all(both)) expect(answer).toMatchObject({ ok: true });
    await writeAll();
    expect(await mailed(id)).toHaveLength(1);
    expect(await saveLetter(moor.owner, { ...text, version: version + 2 })).toMatchObject({ ok: false });
    expect(await deleteLetter(moor.owner, id)).toMatchObject({ ok: false });
    const other = await draft();
    value(await deleteLetter(moor.owner, other.id));
    expect(await letterPage(moor.owner, other.id)).toMatchObject({ code: 'missing' });
  });

  it('is refused without a subject, without words, and with a field that it has not', async () => {
    const write = (more: object) =>
      saveLetter(moor.owner, {
        id: null,
        subject: 'Hello',
        body: fromText('Hello.'),
        filter: {},
        toAddresses: false,
        ...more,
      });
    expect(await write({ subject: ' ' })).toMatchObject({
      problems: { subject: { code: 'letter.no-subject' } },
    });
    expect(await write({ body: fromText('') })).toMatchObject({
      problems: { body: { code: 'letter.empty' } },
    });
    expect(await write({ body: fromText('Your {age}') })).toMatchObject({
      problems: { body: { code: 'mail.unknown-field' } },
    });
    expect(await write({ subject: 'a\r\nBcc: x@y.example' })).toMatchObject({ problems: { subject: {} } });
  });

  it('is tried by sending it to oneself alone', async () => {
    const { id } = await draft();
    value(await tryLetter(moor.owner, id));
    expect(await mailed(id)).toEqual([]);
    const [mine] = await rows<Mailed>(
      `SELECT subject, text_body FROM mails WHERE template = 'letter' AND member_id = $1 ORDER BY created_at DESC LIMIT 1`,
      [moor.owner.memberId],
    );
    expect(mine?.subject).toMatch(/^Frost, /);
    expect(value(await letterPage(moor.owner, id)).preview?.html).toContain('the dome is frozen shut');
  });
});

describe('a post by email', () => {
  const SECRET = 'The third lens is behind the barometer.';
  const section: Node = {
    type: 'section',
    attrs: { rule: null, openTo: [{ who: { kind: 'tier', id: 'observer' } }], instead: '' } as never,
    content: fromText(SECRET).content,
  };

  it('gives each what they may read of it, and the closed part to none of the others', async () => {
    const itemId = await post({
      type: 'doc',
      content: [...fromText('Clear until midnight.').content, section],
    });
    value(await mailPost(moor.owner, { itemId, closedGet: 'teaser' }));
    await writeAll();
    const [letter] = await rows<{ id: string }>('SELECT id FROM letters WHERE item_id = $1', [itemId]);
    const all = await mailed(letter?.id ?? '');
    const to = async (actor: Actor): Promise<Mailed | undefined> => {
      const email = await emailOf(actor);
      return all.find(({ to_address }) => to_address === email);
    };
    expect((await to(observer))?.text_body).toContain(SECRET);
    for (const actor of [gazer, nobody]) {
      const theirs = await to(actor);
      expect(theirs?.text_body).toContain('Clear until midnight.');
      expect(JSON.stringify(theirs)).not.toContain('barometer');
      expect(theirs?.text_body).toContain('See what else is in it on the site');
    }
  });

  it('that is closed sends others its teaser, or nothing, as was chosen; never what is hidden', async () => {
    const body = fromText(`Open the slit.\n\n${SECRET}`);
    for (const [closedGet, more, count] of [
      ['teaser', {}, 1],
      ['nothing', {}, 0],
      ['teaser', { listed: false }, 0],
    ] as const) {
      const itemId = await post(body, { summary: 'A short summary.' });
      await closeTo(itemId, more);
      value(await mailPost(moor.owner, { itemId, closedGet }));
      await writeAll();
      const [letter] = await rows<{ id: string }>('SELECT id FROM letters WHERE item_id = $1', [itemId]);
      const all = await mailed(letter?.id ?? '');
      const [mine, theirs] = [await emailOf(observer), await emailOf(gazer)];
      expect(all.find(({ to_address }) => to_address === mine)?.text_body).toContain(SECRET);
      const closed = all.filter(({ to_address }) => to_address === theirs);
      expect(closed).toHaveLength(count);
      expect(JSON.stringify(closed)).not.toContain('barometer');
    }
  });

  it('waits until it is published, goes once, and not from the trash', async () => {
    const at = new Date(Date.now() + 3 * 86_400_000).toISOString();
    const itemId = await post(fromText('Soon.'), { publish: { at } });
    value(await mailPost(moor.owner, { itemId, closedGet: 'teaser' }));
    expect(await mailPost(moor.owner, { itemId, closedGet: 'teaser' })).toMatchObject({
      problems: { '': { code: 'letter.mailed-already' } },
    });
    await writeAll();
    const state = async () => value(await postMail(moor.owner, { itemId, kind: 'post' })).mailed;
    expect(await state()).toMatchObject({ written: 0 });
    // Others are not held up by it.
    const other = await begin({ filter: { tier: 'observer' } });
    await writeAll();
    expect(await mailed(other)).toHaveLength(1);
    await passDays(moor, 4);
    await writeAll();
    expect((await state())?.written).toBeGreaterThan(0);
    const binned = await post(fromText('Binned.'));
    value(await mailPost(moor.owner, { itemId: binned, closedGet: 'teaser' }));
    value(await trashItems(moor.owner, [binned]));
    await writeAll();
    expect(value(await postMail(moor.owner, { itemId: binned, kind: 'post' })).mailed).toMatchObject({
      written: 0,
    });
  });

  it('is not known to staff from whom its category is shut', async () => {
    const { id: category } = value(await saveCategory(SETUP, { name: 'Council' }));
    const itemId = await post(fromText('Between us.'), { categories: [category] });
    value(await mailPost(moor.owner, { itemId, closedGet: 'teaser' }));
    const [letter] = await rows<{ id: string }>('SELECT id FROM letters WHERE item_id = $1', [itemId]);
    await rows(
      `INSERT INTO staff_roles (role, rights, reads_all, writes_in, shut_from) VALUES ('helper', $1, false, '{}', $2)`,
      [['look', 'see members', 'manage members'], [category]],
    );
    const helper: Actor = { kind: 'staff', memberId: moor.owner.memberId, staffRole: 'helper' };
    const listed = value(await lettersPlace(helper, {})).letters;
    expect(listed.map(({ id }) => id)).not.toContain(letter?.id);
    expect(listed.length).toBeGreaterThan(0);
    expect(await letterPage(helper, letter?.id)).toMatchObject({ code: 'missing' });
    expect(await tryLetter(helper, letter?.id)).toMatchObject({ code: 'missing' });
    await rows('DELETE FROM staff_roles');
  });

  it('is refused for a page, and for what is a draft', async () => {
    const draftId = await post(fromText('x'), { publish: 'draft' });
    expect(await mailPost(moor.owner, { itemId: draftId, closedGet: 'teaser' })).toMatchObject({
      problems: { '': { code: 'letter.not-published' } },
    });
    expect(await mailPost(moor.owner, { itemId: 'visit', closedGet: 'teaser' })).toMatchObject({
      problems: { '': { code: 'letter.no-post' } },
    });
  });
});

describe('someone of whom only the address is known', () => {
  /** The link that was mailed last to an address. */
  async function linkTo(email: string, path: string): Promise<string> {
    const [mail] = await rows<{ sealed: string }>(
      'SELECT sealed FROM mails WHERE to_address = $1 AND sealed IS NOT NULL ORDER BY created_at DESC LIMIT 1',
      [email],
    );
    const { text } = JSON.parse(unseal(mail?.sealed ?? '')) as { text: string };
    return new RegExp(`${path}/([\\w-]+)`).exec(text)?.[1] ?? '';
  }

  it('asks for emails, and gets them once the link is confirmed; letters only where the letter goes to addresses', async () => {
    const email = 'passer.by@moor.example';
    value(await askForMails(VISITOR_ACTOR, { email, topics: ['posts', 'letters'] }));
    expect(value(await addressesPlace(moor.owner, {})).rows).toEqual([]);
    const token = await linkTo(email, '/by-mail');
    expect(value(await mailLink(VISITOR_ACTOR, token))).toEqual(['posts', 'letters']);
    expect(value(await addressesPlace(moor.owner, {})).rows).toEqual([]);
    value(await confirmMails(VISITOR_ACTOR, token));
    value(await confirmMails(VISITOR_ACTOR, token));
    expect(value(await addressesPlace(moor.owner, { q: 'PASSER' })).rows).toMatchObject([
      { email, how: 'asked', getsPosts: true, getsLetters: true },
    ]);
    const without = await begin({ filter: { tier: 'observer' } });
    await writeAll();
    expect((await mailed(without)).map(({ to_address }) => to_address)).not.toContain(email);
    const id = await begin({ filter: { tier: 'observer' }, toAddresses: true });
    await writeAll();
    const theirs = (await mailed(id)).find(({ to_address }) => to_address === email);
    const off = /\/mail-off\/([\w-]+)/.exec(theirs?.text_body ?? '')?.[1] ?? '';
    value(await turnMailOff(VISITOR_ACTOR, { token: off, isOff: true }));
    expect(value(await mailOffLink(VISITOR_ACTOR, off))).toEqual({ topic: 'letters', isOn: false });
    const after = await begin({ filter: { tier: 'observer' }, toAddresses: true });
    await writeAll();
    expect((await mailed(after)).map(({ to_address }) => to_address)).not.toContain(email);
  });

  it('gets of a post what a visitor may read', async () => {
    const itemId = await post(fromText('Behind the third gatepost.'), { summary: 'For observers.' });
    await closeTo(itemId);
    value(await mailPost(moor.owner, { itemId, closedGet: 'teaser' }));
    await writeAll();
    const [letter] = await rows<{ id: string }>('SELECT id FROM letters WHERE item_id = $1', [itemId]);
    const theirs = (await mailed(letter?.id ?? '')).find(({ to_address }) =>
      to_address.startsWith('passer.by'),
    );
    expect(theirs?.text_body).toContain('For observers.');
    expect(JSON.stringify(theirs)).not.toContain('gatepost');
  });

  it('is listed after confirming an address to read, which is no consent to emails', async () => {
    const { id: passId } = value(
      await savePass(moor.owner, { name: 'Night guests', byAddress: true, version: 0 }),
    );
    const email = 'reads.once@moor.example';
    value(await leaveAddress(VISITOR_ACTOR, { pass: passId, email, to: '/' }));
    value(await takeReadLink(VISITOR_ACTOR, await linkTo(email, '/pass')));
    const [known] = value(await addressesPlace(moor.owner, { q: 'reads.once' })).rows;
    expect(known).toMatchObject({ how: 'pass', getsPosts: null, getsLetters: null });
    const id = await begin({ filter: { tier: 'observer' }, toAddresses: true });
    await writeAll();
    expect((await mailed(id)).map(({ to_address }) => to_address)).not.toContain(email);
    value(await removeAddress(moor.owner, known?.id));
    expect(await removeAddress(moor.owner, known?.id)).toMatchObject({ ok: false });
  });

  it('takes what they chose along when they get an account, however that is made', async () => {
    const email = 'joins.later@moor.example';
    value(await askForMails(VISITOR_ACTOR, { email, topics: ['letters'] }));
    value(await confirmMails(VISITOR_ACTOR, await linkTo(email, '/by-mail')));
    value(await addMember(moor.owner, { email, name: 'Joins Later' }));
    expect(value(await addressesPlace(moor.owner, { q: email })).rows).toEqual([]);
    const member = await memberNamed(email);
    const topics = value(await myMailTopics(asMember(member?.id ?? '')));
    expect(topics.find(({ topic }) => topic === 'letters')).toMatchObject({ isOn: true });
    // Asked for again, it is the account's.
    value(await setMyMailTopic(asMember(member?.id ?? ''), { topic: 'letters', isOff: true }));
    value(await askForMails(VISITOR_ACTOR, { email, topics: ['letters'] }));
    value(await confirmMails(VISITOR_ACTOR, await linkTo(email, '/by-mail')));
    expect(value(await addressesPlace(moor.owner, { q: email })).rows).toEqual([]);
    expect(
      value(await myMailTopics(asMember(member?.id ?? ''))).find(({ topic }) => topic === 'letters')?.isOn,
    ).toBe(true);
  });

  it('cannot be signed up by a link that is old or made up', async () => {
    expect(value(await mailLink(VISITOR_ACTOR, 'x'.repeat(40)))).toBeNull();
    expect(await confirmMails(VISITOR_ACTOR, 'x'.repeat(40))).toMatchObject({ ok: false });
    const email = 'too.late@moor.example';
    value(await askForMails(VISITOR_ACTOR, { email, topics: ['posts'] }));
    await rows(`UPDATE mail_links SET expires_at = now() - interval '1 second'`);
    expect(await confirmMails(VISITOR_ACTOR, await linkTo(email, '/by-mail'))).toMatchObject({ ok: false });
  });
});

describe('opens', () => {
  const tokenIn = (mail: Mailed | undefined, what: string): string =>
    new RegExp(`/api/letters/${what}/([\\w-]+)`).exec(mail?.html_body ?? '')?.[1] ?? '';

  it('are counted only where the owner turned that on, and forgotten when it is turned off', async () => {
    await wants(observer);
    const quiet = await begin({ filter: { tier: 'observer' } });
    await writeAll();
    expect((await mailed(quiet))[0]?.html_body).not.toContain('/api/letters/');
    value(
      await saveLetterSettings(moor.owner, { lettersPerMinute: 600, asksLetters: false, countsOpens: true }),
    );
    const id = await begin({ filter: { tier: 'observer' } });
    await writeAll();
    const [mine] = await mailed(id);
    value(await letterSeen(VISITOR_ACTOR, tokenIn(mine, 'seen')));
    value(await letterSeen(VISITOR_ACTOR, tokenIn(mine, 'seen')));
    value(await letterSeen(VISITOR_ACTOR, 'made-up'));
    expect(value(await letterPage(moor.owner, id)).opens).toEqual({ opened: 1, read: 0 });
    expect(value(await letterRead(VISITOR_ACTOR, tokenIn(mine, 'read')))).toEqual({ path: '/' });
    expect(value(await letterPage(moor.owner, id)).opens).toEqual({ opened: 1, read: 1 });
    expect(value(await lettersOpenedBy(moor.owner, observer.memberId))).toMatchObject([{ letterId: id }]);
    expect(value(await lettersPlace(moor.owner, {})).letters.find((one) => one.id === id)?.opened).toBe(1);
    value(
      await saveLetterSettings(moor.owner, { lettersPerMinute: 600, asksLetters: false, countsOpens: false }),
    );
    expect(await rows('SELECT 1 FROM letter_opens')).toEqual([]);
    value(await letterSeen(VISITOR_ACTOR, tokenIn(mine, 'seen')));
    expect(await rows('SELECT 1 FROM letter_opens')).toEqual([]);
  });

  it('of a post on the site are counted with them: of members alone, in a full view, and not for staff or a look as them', async () => {
    const itemId = await post(fromText('Come and see.'));
    const [{ path } = { path: '' }] = await rows<{ path: string }>('SELECT path FROM items WHERE id = $1', [
      itemId,
    ]);
    const counts = (countsOpens: boolean) =>
      saveLetterSettings(moor.owner, { lettersPerMinute: 600, asksLetters: false, countsOpens }).then(value);
    const sees = async (who: Actor, isView = true) =>
      void value(await viewItem({ ...who, browser: { ...who.browser, isView } }, path));
    const readers = async () => value(await postMail(moor.owner, { itemId, kind: 'post' })).readers;
    const readBy = async ({ memberId }: Actor) => {
      const { timeline, lanes } = value(await memberFile(moor.owner, memberId));
      return [timeline.filter(({ id }) => id === `read:${itemId}`).length, lanes.reads?.length ?? null];
    };
    await counts(false);
    await sees(observer);
    expect([await readers(), await readBy(observer)]).toEqual([null, [0, null]]);
    await counts(true);
    await sees(observer, false);
    await sees({ ...observer, look: 'visitor' });
    await sees({ ...moor.owner, kind: 'staff' });
    await sees(VISITOR_ACTOR);
    expect([await readers(), await readBy(observer)]).toEqual([0, [0, 0]]);
    await sees(observer);
    await sees(observer);
    await sees(gazer);
    expect([await readers(), await readBy(observer)]).toEqual([2, [1, 1]]);
    const before = await rows('SELECT last_at FROM item_reads ORDER BY member_id');
    await sees(observer);
    expect(await rows('SELECT last_at FROM item_reads ORDER BY member_id')).toEqual(before);
    // What is closed to a member was not read by them.
    value(
      await saveRule(SETUP, {
        id: 'read-by-few',
        name: 'Read by few',
        on: true,
        covers: [{ kind: 'item', id: itemId }],
        openTo: [{ who: { kind: 'tier', id: 'warden' } }],
      }),
    );
    await sees(nobody);
    expect(await readers()).toBe(2);
    expect(JSON.stringify(value(await myData(observer)))).toContain('"opened"');
    value(await removeMember(moor.owner, gazer.memberId));
    expect(await readers()).toBe(1);
    await counts(false);
    expect(await rows('SELECT 1 FROM item_reads')).toEqual([]);
  });

  it('lead on to the post that was mailed', async () => {
    value(
      await saveLetterSettings(moor.owner, { lettersPerMinute: 600, asksLetters: false, countsOpens: true }),
    );
    const itemId = await post(fromText('Come and see.'));
    value(await mailPost(moor.owner, { itemId, closedGet: 'teaser' }));
    await writeAll();
    const [letter] = await rows<{ id: string }>('SELECT id FROM letters WHERE item_id = $1', [itemId]);
    const all = await mailed(letter?.id ?? '');
    const mine = all.find(({ html_body }) => html_body.includes('/api/letters/read/'));
    const { path } = value(await letterRead(VISITOR_ACTOR, tokenIn(mine, 'read')));
    expect(path).toBe(
      (await rows<{ path: string }>('SELECT path FROM items WHERE id = $1', [itemId]))[0]?.path,
    );
  });
});
