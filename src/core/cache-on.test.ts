import { describe, expect, it } from 'vitest';
import { cacheOn } from './cache-on';

describe('what is cached on an object', () => {
  const KEY = Symbol('key');
  type Cached = { name: string; [KEY]?: number };

  it('is found there, and replaced', () => {
    const owner: Cached = { name: 'Observer' };
    expect(cacheOn(owner, KEY, 1)).toBe(1);
    cacheOn(owner, KEY, 2);
    expect(owner[KEY]).toBe(2);
  });

  it('does not go along into a copy, nor into JSON', () => {
    const owner: Cached = { name: 'Observer' };
    cacheOn(owner, KEY, 1);
    expect({ ...owner, name: 'Warden' }[KEY]).toBeUndefined();
    expect(structuredClone(owner)).toEqual({ name: 'Observer' });
    expect(JSON.stringify(owner)).toBe('{"name":"Observer"}');
  });

  it('is not kept by a frozen object', () => {
    const owner: Cached = Object.freeze({ name: 'Observer' });
    expect(cacheOn(owner, KEY, 1)).toBe(1);
    expect(owner[KEY]).toBeUndefined();
  });
});
