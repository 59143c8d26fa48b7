import { describe, expect, it } from 'vitest';
import { auditFacts } from './audit-detail';

const facts = (detail: Record<string, unknown>) =>
  auditFacts(detail, (amount, currency) => `${(amount / 100).toFixed(2)} ${currency}`);

describe('what the audit says of a change', () => {
  it('is in words: money as money, long ids short, and nothing of what is empty', () => {
    expect(
      facts({
        amount: 600,
        currency: 'GBP',
        member: '65d64961-a3cf-4a6a-b0d9-8b594e2fa024',
        code: '',
        onSale: true,
        tierId: 'observer',
        codes: [],
        parent: null,
      }),
    ).toEqual(['amount: 6.00 GBP', 'member: 65d64961', 'on sale: yes', 'tier: observer']);
    expect(facts({})).toEqual([]);
  });

  it('is all of it for what is new, parts within parts too', () => {
    expect(
      facts({
        before: null,
        after: {
          id: 'clinic-guests',
          version: 0,
          lasts: { n: 30, unit: 'day' },
          covers: [{ kind: 'category', id: 'clinic' }],
          who: [{ id: 'a' }, { id: 'b' }],
          meets: {},
        },
      }),
    ).toEqual(['lasts: 30 days', 'covers: (kind category, id clinic)', 'who: id a, id b', 'meets: nothing']);
  });

  it('is only what differs, where there was one before', () => {
    const before = { name: 'Clinic', amount: 450, currency: 'GBP', onSale: true, ends: '2027-01-01' };
    const after = { name: 'Clinic', amount: 500, currency: 'GBP', onSale: true, places: 12 };
    expect(facts({ reason: 'spring', before, after })).toEqual([
      'reason: spring',
      'amount: 4.50 GBP → 5.00 GBP',
      'ends: 2027-01-01 → nothing',
      'places: nothing → 12',
    ]);
    expect(facts({ before, after: null })).toContain('name: Clinic');
  });
});
