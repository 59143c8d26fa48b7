import { describe, expect, it } from 'vitest';
import { containing, where } from './conditions';

describe('what a list is narrowed by', () => {
  it('names only the conditions that are set, and numbers their values in order', () => {
    const state = '' as string;
    const narrowed = where([
      ['mode = ?', 'test'],
      state && ['state = ?', state],
      ['at >= ? AND at < ?', 'a', 'b'],
      null,
    ]);
    expect(narrowed.sql).toBe('WHERE (mode = $1) AND (at >= $2 AND at < $3)');
    expect(narrowed.add(20)).toBe('$4');
    expect(narrowed.values).toEqual(['test', 'a', 'b', 20]);
  });

  it('is nothing where nothing is set', () => {
    expect(where([false, '', undefined])).toMatchObject({ sql: '', values: [] });
  });

  it('reads no wildcard in what was typed', () => {
    expect(containing('50%_\\X')).toBe('%50\\%\\_\\\\x%');
  });
});
