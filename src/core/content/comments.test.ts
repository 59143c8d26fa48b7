import { describe, expect, it } from 'vitest';
import type { Question } from '../access/decide';
import { VISITOR, type PersonFacts } from '../access/facts';
import type { Opener } from '../access/rule';
import { commentRights, firstState, hasComments, NO_COMMENTS, type CommentSettings } from './comments';

const member: PersonFacts = { ...VISITOR, signedIn: true, id: 'm', joinedAt: '2027-01-01T00:00:00Z' };
const holder: PersonFacts = {
  ...member,
  tiers: [{ tier: 'warden', since: '2027-01-01T00:00:00Z', paid: true }],
};
const wardens: Opener[] = [{ who: { kind: 'tier', id: 'warden' } }];
const asking = (person: PersonFacts): Question => ({
  now: '2027-05-01T12:00:00Z',
  zone: 'Europe/London',
  default: 'everyone',
  // Whatever covers the item has been asked before.
  rules: [{ id: 'r', covers: [{ kind: 'site' }], openTo: [] }],
  item: {
    id: 'i',
    type: 'post',
    path: '/posts/i',
    ancestors: [],
    categories: [],
    tags: [],
    publishedAt: '2027-01-01T00:00:00Z',
  },
  person,
});
const settings = (part: Partial<CommentSettings> = {}): CommentSettings => ({
  ...NO_COMMENTS,
  isOn: true,
  ...part,
});

describe('the comments of an item', () => {
  it('are there where the kind has them, unless the item chose otherwise; never on files and links', () => {
    expect(hasComments({ type: 'post', commentsOn: null }, settings())).toBe(true);
    expect(hasComments({ type: 'post', commentsOn: false }, settings())).toBe(false);
    expect(hasComments({ type: 'post', commentsOn: null }, NO_COMMENTS)).toBe(false);
    expect(hasComments({ type: 'page', commentsOn: true }, NO_COMMENTS)).toBe(true);
    for (const type of ['file', 'link'])
      expect(hasComments({ type, commentsOn: true }, settings())).toBe(false);
  });

  it('are read by those who are let in, and written by members among them', () => {
    expect(commentRights(settings(), asking(VISITOR), true)).toEqual({ reads: true, writes: false });
    expect(commentRights(settings(), asking(member), true)).toEqual({ reads: true, writes: true });
    expect(commentRights(settings(), asking(holder), false)).toEqual({ reads: false, writes: false });
  });

  it('can be for fewer people than the item, and to be written by fewer still', () => {
    const narrow = settings({ readers: [{ who: { kind: 'signed-in' } }], writers: wardens });
    expect(commentRights(narrow, asking(VISITOR), true)).toEqual({ reads: false, writes: false });
    expect(commentRights(narrow, asking(member), true)).toEqual({ reads: true, writes: false });
    expect(commentRights(narrow, asking(holder), true)).toEqual({ reads: true, writes: true });
    // Nobody writes what they cannot read, and no openers at all are nobody.
    expect(commentRights(settings({ readers: wardens }), asking(member), true).writes).toBe(false);
    expect(commentRights(settings({ writers: [] }), asking(holder), true)).toEqual({
      reads: true,
      writes: false,
    });
    // A choice of everyone does not let visitors write.
    expect(
      commentRights(settings({ writers: [{ who: { kind: 'everyone' } }] }), asking(VISITOR), true).writes,
    ).toBe(false);
  });

  it('are shown at once where none are held, and where their writer could approve them', () => {
    expect(firstState(settings({ isHeld: true }), false)).toBe('waiting');
    expect(firstState(settings({ isHeld: true }), true)).toBe('shown');
    expect(firstState(settings({ isHeld: false }), false)).toBe('shown');
  });
});
