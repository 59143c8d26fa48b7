import { describe, expect, it } from 'vitest';
import { plainWords } from '@/words/desk';
import { checkLetters, inspectKey } from './keys';

const key = (start: string): string => {
  const head = `${start}0123456789abcdef01234567`;
  return head + checkLetters(head);
};

describe('pasted keys', () => {
  it('that are right pass, with white space around them', () => {
    expect(inspectKey('secretKey', ` ${key('curlew_test_secret_')}\n`, 'test')).toBeNull();
    expect(inspectKey('siteKey', key('curlew_live_site_'), 'live')).toBeNull();
  });

  it.each([
    ['nothing', '', /Paste the secret key/],
    ['something else', 'abc', /not a key of Curlew Cards/],
    ['the site key', key('curlew_test_site_'), /This is the site key/],
    ['a live-mode key', key('curlew_live_secret_'), /live-mode key.*real cards/],
    ['a key cut off', key('curlew_test_secret_').slice(0, -5), /cut off: 5 characters are missing/],
    ['a key cut off by one', key('curlew_test_secret_').slice(0, -1), /1 character is missing/],
    ['a key with a tail', `${key('curlew_test_secret_')}xx`, /2 characters too long/],
    ['a slip of the finger', key('curlew_test_secret_').replace('0123', '0124'), /One character or more/],
  ])('%s get a sentence that says which and why', (_, pasted, words) => {
    const found = inspectKey('secretKey', pasted, 'test');
    expect(found?.field).toBe('secretKey');
    expect(found && plainWords.problem(found.problem)).toMatch(words);
  });

  it('of test mode are refused by a live site', () => {
    expect(inspectKey('siteKey', key('curlew_test_site_'), 'live')?.problem.code).toBe('key.test');
  });
});
