import { expect, it } from 'vitest';
import { ACCOUNT_SECTIONS, sectionsFor, wholeArrangement } from './account-sections';

it('an arrangement that says nothing shows everything', () => {
  expect(sectionsFor([], [])).toEqual([...ACCOUNT_SECTIONS]);
});

it('keeps the owner’s order, and leaves out what is off, but never what a member must be able to do', () => {
  const arranged = [
    { id: 'receipts' as const, isOn: true },
    { id: 'payments' as const, isOn: false },
    { id: 'held' as const, isOn: false },
    { id: 'receipts' as const, isOn: false },
  ];
  expect(wholeArrangement(arranged)).toHaveLength(ACCOUNT_SECTIONS.length);
  expect(sectionsFor(arranged, [])).toEqual(['receipts', 'held', 'notes', 'words']);
});

it('a tier’s own arrangement comes before the site’s; of several tiers what one shows is shown', () => {
  const site = [{ id: 'notes' as const, isOn: false }];
  const high = [
    { id: 'words' as const, isOn: true },
    { id: 'payments' as const, isOn: false },
    { id: 'receipts' as const, isOn: false },
  ];
  const low = [{ id: 'payments' as const, isOn: false }];
  expect(sectionsFor(site, [null, null])).not.toContain('notes');
  expect(sectionsFor(site, [high, null])).toEqual(['words', 'notes', 'held']);
  expect(sectionsFor(site, [high, low])).toEqual(['words', 'receipts', 'notes', 'held']);
});
