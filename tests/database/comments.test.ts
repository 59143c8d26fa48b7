import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { itemComments } from '../../src/access/services/item-comments';
import { deskComments, moderateComments } from '../../src/access/services/moderate-comments';
import { saveKind } from '../../src/access/services/save-kind';
import { saveRule } from '../../src/access/services/save-rule';
import { deleteMyComment, writeComment } from '../../src/access/services/write-comment';
import { saveItem } from '../../src/content/services/save-item';
import { trashItems } from '../../src/content/services/trash-items';
import { NO_COMMENTS, type CommentSettings } from '../../src/core/content/comments';
import { mailOffLink, myMailTopics, setMyMailTopic, turnMailOff } from '../../src/mail/services/mail-topics';
import { deleteAccount } from '../../src/members/services/delete-account';
import { myData } from '../../src/members/services/my-data';
import { SETUP, VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import { asMember, join, lanternMoor, newPerson, rows, value } from './lantern-moor';

const moor = lanternMoor();
let observer: Actor;
let other: Actor;
let nobody: Actor;
let itemId: string;

beforeAll(async () => {
  observer = asMember((await join(moor, 'observer-monthly', 'works')).memberId);
  other = asMember((await join(moor, 'observer-monthly', 'works')).memberId);
  nobody = await newPerson('Nobody Yet');
  itemId = await post('Talk of comets');
});

async function post(title: string, more: Record<string, unknown> = {}): Promise<string> {
  return value(await saveItem(SETUP, { type: 'post', title, publish: 'publish', commentsOn: true, ...more }))
    .id;
}
const setPosts = async (part: Partial<CommentSettings>): Promise<void> =>
  void value(
    await saveKind(SETUP, {
      id: 'post',
      name: '',
      plural: '',
      path: 'posts',
      comments: { ...NO_COMMENTS, isHeld: false, ...part },
    }),
  );
const write = (actor: Actor, words: string, more: Record<string, unknown> = {}) =>
  writeComment(actor, { itemId, words, formKey: randomUUID(), ...more });
const read = async (actor: Actor, id = itemId) => value(await itemComments(actor, { itemId: id }));
const wordsFor = async (actor: Actor, id = itemId): Promise<string[]> =>
  ((await read(actor, id))?.comments ?? []).flatMap((one) => [
    one.words,
    ...one.replies.map(({ words }) => words),
  ]);
const idOf = async (words: string): Promise<string> =>
  (await rows<{ id: string }>('SELECT id FROM comments WHERE words = $1', [words]))[0]?.id ?? '';
const mailsTo = (actor: Actor) =>
  rows<{ subject: string; text_body: string; topic: string }>(
    `SELECT subject, text_body, topic FROM mails WHERE member_id = $1 AND template = 'comment-reply' ORDER BY created_at`,
    [actor.memberId],
  );

describe('a comment', () => {
  it('that is held is seen by its writer and by staff alone, until it is approved', async () => {
    await setPosts({ isHeld: true });
    expect(value(await write(observer, 'Saw it from the ridge.'))).toEqual({ state: 'waiting' });
    expect(await wordsFor(observer)).toContain('Saw it from the ridge.');
    for (const actor of [VISITOR_ACTOR, other, nobody])
      expect(await wordsFor(actor)).not.toContain('Saw it from the ridge.');
    const { rows: waiting } = value(await deskComments(moor.owner, {}));
    expect(waiting.map(({ words }) => words)).toEqual(['Saw it from the ridge.']);
    value(await moderateComments(moor.owner, { ids: [waiting[0]!.id], state: 'shown' }));
    expect(await wordsFor(VISITOR_ACTOR)).toContain('Saw it from the ridge.');
    await setPosts({});
  });

  it('sent twice with one form is one comment', async () => {
    const form = { formKey: randomUUID() };
    const answers = await Promise.all([write(nobody, 'Twice?', form), write(nobody, 'Twice?', form)]);
    expect(answers.map((answer) => answer.ok)).toEqual([true, true]);
    expect((await wordsFor(other)).filter((words) => words === 'Twice?')).toHaveLength(1);
    // Two tabs may show one page that was kept, and so one form.
    value(await write(nobody, 'And once more.', form));
    expect(await wordsFor(other)).toEqual(expect.arrayContaining(['Twice?', 'And once more.']));
  });

  it('is only for people who can open its item, even by a known id', async () => {
    const closed = await post('For observers');
    value(
      await saveRule(SETUP, {
        id: 'for-observers',
        name: 'For observers',
        on: true,
        covers: [{ kind: 'item', id: closed }],
        openTo: [{ who: { kind: 'tier', id: 'observer' } }],
      }),
    );
    value(await write(observer, 'Between us.', { itemId: closed }));
    expect(await wordsFor(other, closed)).toEqual(['Between us.']);
    for (const actor of [VISITOR_ACTOR, nobody]) expect(await read(actor, closed)).toBeNull();
    expect(await write(nobody, 'Let me in', { itemId: closed })).toMatchObject({ code: 'missing' });
    // Nor does a reply open another item's conversation.
    const within = await idOf('Between us.');
    expect(await write(nobody, 'Through the window', { replyTo: within })).toMatchObject({
      problems: { '': { code: 'comment.gone' } },
    });
    value(await trashItems(SETUP, [closed]));
    expect(await read(observer, closed)).toBeNull();
  });

  it('can be for fewer people than its item', async () => {
    await setPosts({
      readers: [{ who: { kind: 'signed-in' } }],
      writers: [{ who: { kind: 'tier', id: 'observer' } }],
    });
    expect(await read(VISITOR_ACTOR)).toBeNull();
    expect(await read(nobody)).toMatchObject({ mayWrite: false });
    expect(await write(nobody, 'May I?')).toMatchObject({ problems: { '': { code: 'comment.not-you' } } });
    expect(await read(observer)).toMatchObject({ mayWrite: true });
    await setPosts({});
  });

  it('is written by nobody on a draft, a post without comments, or as someone else', async () => {
    const [draft, off] = [
      await post('Draft', { publish: 'draft' }),
      await post('Quiet', { commentsOn: false }),
    ];
    for (const id of [draft, off, 'no-such-item'])
      expect(await write(observer, 'Anyone?', { itemId: id })).toMatchObject({ code: 'missing' });
    expect(await write({ ...moor.owner, look: 'visitor' }, 'As a visitor')).toMatchObject({
      problems: { '': { code: 'comment.looking' } },
    });
    expect(await write(observer, '   ')).toMatchObject({ problems: { words: { code: 'comment.empty' } } });
    expect(await write(observer, 'x'.repeat(4001))).toMatchObject({
      problems: { words: { code: 'comment.too-long' } },
    });
  });

  it('that was removed leaves its replies, and none of its words', async () => {
    value(await write(observer, 'Buy cheap lenses'));
    const id = await idOf('Buy cheap lenses');
    value(await write(other, 'Please don’t', { replyTo: id }));
    value(await moderateComments(moor.owner, { ids: [id], state: 'removed' }));
    const seen = (await read(VISITOR_ACTOR))?.comments.find((one) => one.id === id);
    expect(seen).toMatchObject({ isGone: true, words: '', name: '', replies: [{ words: 'Please don’t' }] });
    value(await moderateComments(moor.owner, { ids: [id], state: 'shown' }));
    expect(await wordsFor(VISITOR_ACTOR)).toContain('Buy cheap lenses');
  });

  it('that its writer deletes is gone for good, and nobody else can delete it', async () => {
    value(await write(observer, 'I take it all back'));
    const id = await idOf('I take it all back');
    expect(await deleteMyComment(other, id)).toMatchObject({ code: 'missing' });
    expect(await deleteMyComment(moor.owner, id)).toMatchObject({ code: 'missing' });
    value(await deleteMyComment(observer, id));
    expect(await idOf('I take it all back')).toBe('');
  });

  it('is in what its writer can download, and goes with their account', async () => {
    const leaving = await newPerson('Leaving Soon');
    value(await write(leaving, 'My last word'));
    expect(JSON.stringify(value(await myData(leaving)))).toContain('My last word');
    const id = await idOf('My last word');
    value(await write(observer, 'Farewell', { replyTo: id }));
    value(await deleteAccount(leaving, { password: 'look up more often', isSure: true }));
    expect((await read(observer))?.comments.find((one) => one.id === id)).toMatchObject({
      isGone: true,
      replies: [{ words: 'Farewell' }],
    });
    expect(await idOf('My last word')).toBe('');
    // What its writer deleted is not brought back by staff.
    expect(value(await moderateComments(moor.owner, { ids: [id], state: 'shown' })).count).toBe(0);
  });

  it('is not followed by hundreds in a minute', async () => {
    const eager = await newPerson('Eager');
    const answers = [];
    for (let n = 0; n < 11; n++) answers.push(await write(eager, `Again ${n}`));
    expect(answers.filter((answer) => answer.ok)).toHaveLength(10);
    expect(answers.at(-1)).toMatchObject({ problems: { '': { code: 'comment.too-many' } } });
  });
});

describe('a reply', () => {
  it('is mailed once to those in its conversation who may still read it, without its words', async () => {
    value(await write(observer, 'Which eyepiece?'));
    const id = await idOf('Which eyepiece?');
    const before = (await mailsTo(observer)).length;
    value(await write(other, 'The long one', { replyTo: id }));
    const [mail] = (await mailsTo(observer)).slice(before);
    expect(mail).toMatchObject({ topic: 'comments', subject: 'New reply on “Talk of comets”' });
    expect(mail?.text_body).toContain(`/posts/talk-of-comets#comment-`);
    expect(mail?.text_body).not.toContain('The long one');
    expect(await mailsTo(other)).toEqual([]);

    // A reply to the reply is in the same conversation; held, it is mailed when it is approved, and only then.
    await setPosts({ isHeld: true });
    value(await write(observer, 'Thank you', { replyTo: await idOf('The long one') }));
    expect(await mailsTo(other)).toEqual([]);
    const reply = await idOf('Thank you');
    for (let n = 0; n < 2; n++) {
      value(await moderateComments(moor.owner, { ids: [reply], state: 'shown' }));
      value(await moderateComments(moor.owner, { ids: [reply], state: 'removed' }));
    }
    expect(await mailsTo(other)).toHaveLength(1);
    // Those who may no longer read it are told nothing.
    value(await moderateComments(moor.owner, { ids: [reply], state: 'shown' }));
    await setPosts({ readers: [{ who: { kind: 'tier', id: 'warden' } }] });
    const count = (await mailsTo(other)).length;
    value(await write(moor.owner, 'From the team', { replyTo: id }));
    expect(await mailsTo(other)).toHaveLength(count);
    await setPosts({});
  });

  it('is mailed no more after one click, signed in or not, and again after another', async () => {
    value(await write(observer, 'Any clouds?'));
    const id = await idOf('Any clouds?');
    value(await write(other, 'None', { replyTo: id }));
    const told = (await mailsTo(observer)).at(-1)!;
    const token = /\/mail-off\/([\w-]+)/.exec(told.text_body)?.[1] ?? '';
    expect(value(await mailOffLink(VISITOR_ACTOR, token))).toEqual({ topic: 'comments', isOn: true });
    value(await turnMailOff(VISITOR_ACTOR, { token, isOff: true }));
    expect(value(await myMailTopics(observer))[0]).toMatchObject({ topic: 'comments', isOn: false });
    const count = (await mailsTo(observer)).length;
    value(await write(other, 'Still none', { replyTo: id }));
    expect(await mailsTo(observer)).toHaveLength(count);
    value(await setMyMailTopic(observer, { topic: 'comments', isOff: false }));
    value(await write(other, 'A few now', { replyTo: id }));
    expect(await mailsTo(observer)).toHaveLength(count + 1);
    for (const forged of [token.slice(0, -3), Buffer.from('mail-off:comments:x.y').toString('base64url')])
      expect(await turnMailOff(VISITOR_ACTOR, { token: forged.padEnd(20, 'A'), isOff: true })).toMatchObject({
        code: 'missing',
      });
  });
});
