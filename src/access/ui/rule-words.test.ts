import { expect, it } from 'vitest';
import type { Cover, Opener } from '@/core/access/rule';
import { coverWords, whenWords, whoWords, type Names } from './rule-words';

const names: Names = {
  'item:library': 'Library',
  'category:guides': 'Observing guides',
  'tier:observer': 'Observer',
  'group:committee': 'Committee',
};

it.each<[Cover, string]>([
  [{ kind: 'item', id: 'library' }, '“Library”'],
  [{ kind: 'under', id: 'library' }, '“Library” and all below it'],
  [{ kind: 'path', pattern: '/library/*' }, 'the address /library/*'],
  [{ kind: 'category', id: 'guides' }, 'the category Observing guides'],
  [{ kind: 'tag', id: 'video' }, 'what is tagged video'],
  [{ kind: 'type', id: 'post' }, 'all posts'],
  [{ kind: 'site' }, 'the whole site'],
  [{ kind: 'item', id: 'gone' }, '“gone”'],
])('a cover %o is “%s”', (cover, words) => {
  expect(coverWords(cover, names)).toBe(words);
});

it.each<[Opener, string, string]>([
  [{ who: { kind: 'tier', id: 'observer' } }, 'Observer', ''],
  [
    { who: { kind: 'everyone' }, opens: { since: 'published', after: { n: 30, unit: 'day' } } },
    'everyone',
    'from 30 days after publishing',
  ],
  [{ who: { kind: 'paying' }, closes: { on: '2027-08-09' } }, 'everyone who pays', 'until 2027-08-09'],
  [
    {
      who: { kind: 'signed-in' },
      opens: { since: 'joined', after: { n: 1, unit: 'week' } },
      closes: { since: 'held', after: { n: 1, unit: 'year' } },
    },
    'everyone who is signed in',
    'from 1 week after joining, until 1 year after getting it',
  ],
  [
    {
      who: { kind: 'group', id: 'committee' },
      opens: { since: 'held', after: { n: 2, unit: 'week' }, of: { kind: 'tier', id: 'observer' } },
    },
    'the group Committee',
    'from 2 weeks after getting Observer',
  ],
  [{ who: { kind: 'staff', id: 'helper' } }, 'staff with the role helper', ''],
])('a line %o is said in words', (line, who, when) => {
  expect(whoWords(line, names)).toBe(who);
  expect(whenWords(line, names)).toBe(when);
});
