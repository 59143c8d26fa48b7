import { describe, expect, it } from 'vitest';
import { fieldsOfTier, joinFieldSchema, readAnswers } from './join-fields';
import { JOINING, joiningOf, joiningState, type JoiningTerms } from './joining';

const open: JoiningTerms = {
  joining: 'open',
  onSaleFrom: null,
  onSaleUntil: null,
  places: null,
  isRetired: false,
};
const state = (part: Partial<JoiningTerms>, taken = 0) =>
  joiningState({ ...open, ...part }, taken, '2027-05-10').state;

describe('whether a person can join today', () => {
  it.each<[string, Partial<JoiningTerms>, number]>([
    ['open', {}, 5],
    ['by-code', { joining: 'by-code' }, 0],
    ['closed', { joining: 'closed', places: 1 }, 1],
    ['closed', { isRetired: true }, 0],
    ['open', { onSaleFrom: '2027-05-10', onSaleUntil: '2027-05-10' }, 0],
    ['not-yet', { onSaleFrom: '2027-05-11' }, 0],
    ['over', { onSaleUntil: '2027-05-09' }, 0],
    ['sold-out', { places: 30 }, 30],
    ['sold-out', { places: 30, joining: 'by-code' }, 31],
  ])('is %s where %o and %d hold it', (expected, context, taken) => {
    expect(state(context, taken)).toBe(expected);
  });

  it('counts the places that are left', () => {
    const { placesLeft } = joiningState({ ...open, places: 30 }, 18, '2027-05-10');
    expect(placesLeft).toBe(12);
  });
});

describe('what is asked at joining', () => {
  const field = (part: object) => joinFieldSchema.parse({ id: 'x', kind: 'text', label: 'X', ...part });
  const fields = [
    field({ id: 'name', kind: 'name', isRequired: true }),
    field({ id: 'bench', isRequired: true }),
    field({ id: 'sky', kind: 'choice', options: ['Dark', 'Bright'] }),
    field({ id: 'born', kind: 'date' }),
    field({ id: 'news', kind: 'tick' }),
    field({ id: 'terms', kind: 'terms' }),
  ];
  const read = (given: Record<string, string>) => readAnswers(fields, given);

  it('is kept with its question, in the order of asking; what was not asked for is not', () => {
    expect(read({ terms: 'yes', sky: 'Dark', bench: ' Once ', news: '', sneaky: 'x', name: 'N' })).toEqual({
      ok: true,
      answers: [
        { fieldId: 'bench', label: 'X', value: 'Once' },
        { fieldId: 'sky', label: 'X', value: 'Dark' },
        { fieldId: 'terms', label: 'X', value: 'yes' },
      ],
    });
  });

  it('is refused beside its own question', () => {
    const answer = read({ sky: 'Grey', born: '2027-02-30', bench: '' });
    expect(answer).toMatchObject({
      ok: false,
      problems: {
        bench: { code: 'answer.missing' },
        sky: { code: 'answer.none-of-these' },
        born: { code: 'date.unreal' },
        terms: { code: 'answer.not-agreed' },
      },
    });
  });

  it('is asked by every tier, or by those that are named, and not where it is off', () => {
    const some = [
      field({ id: 'a' }),
      field({ id: 'b', tierIds: ['warden'] }),
      field({ id: 'c', isOn: false }),
    ];
    expect(fieldsOfTier(some, 'warden').map(({ id }) => id)).toEqual(['a', 'b']);
    expect(fieldsOfTier(some, 'gazer').map(({ id }) => id)).toEqual(['a']);
  });

  it('needs two different things to choose from', () => {
    expect(joinFieldSchema.safeParse({ ...fields[2], options: ['Dark'] }).success).toBe(false);
    expect(joinFieldSchema.safeParse({ ...fields[2], options: ['Dark', 'Dark'] }).success).toBe(false);
  });
});

it('is as strict as the stricter of the site and the tier', () => {
  for (const one of JOINING) {
    expect(joiningOf('open', one)).toBe(one);
    expect(joiningOf(one, 'open')).toBe(one);
    expect(joiningOf('closed', one)).toBe('closed');
  }
  expect(joiningOf('by-code', 'by-code')).toBe('by-code');
});
