import { describe, expect, it } from 'vitest';
import { closedPhrases, phrasesFound } from './leaks';

const open = 'Stand with the dome behind you and wait.';
const secret =
  'Under the third gatepost lies the old brass key, wrapped in oilcloth since the great frost of that year.';
const phrases = new Map(closedPhrases(`${open} ${secret}`, open).map((phrase) => [phrase, 'a']));

describe('phrases of a closed text', () => {
  it('are so many that any eleven words of it hold one', () => {
    const words = Array.from({ length: 500 }, (_, n) => `word${n}`);
    const all = new Map(closedPhrases(words.join(' '), '').map((phrase) => [phrase, 'a']));
    for (let at = 5; at + 11 <= words.length; at++)
      expect(phrasesFound(words.slice(at, at + 11).join(' '), all)).not.toEqual([]);
  });

  it('are none of what may be read of it', () => {
    expect(phrases.size).toBe(3);
    for (const phrase of phrases.keys()) expect(open.toLowerCase()).not.toContain(phrase);
    expect(closedPhrases(open, open)).toEqual([]);
    expect(closedPhrases('Two words', '')).toEqual([]);
    expect(closedPhrases('Only three words.', '')).toEqual(['only three words']);
  });

  it('are found in a page, whatever markup is between them', () => {
    const marked = secret
      .split(' ')
      .map((word) => `<b class="x">${word}</b>`)
      .join('\n');
    expect(phrasesFound(`<p>${marked}</p>`, phrases)).toHaveLength(3);
    expect(phrasesFound(secret.replaceAll(' ', '&nbsp;'), phrases)).toHaveLength(3);
    expect(phrasesFound(secret.toUpperCase(), phrases)).toHaveLength(3);
  });

  it('are found in scripts and data, as they are escaped there', () => {
    const data = JSON.stringify(JSON.stringify({ html: `<p>${secret.replaceAll(' the ', '\nthe\t')}</p>` }));
    expect(phrasesFound(data, phrases)).toHaveLength(3);
    expect(phrasesFound(data.replaceAll('<', '\\u003c').replaceAll('b', '\\u0062'), phrases)).toHaveLength(3);
  });

  it('are not found where only what is open is', () => {
    expect(phrasesFound(`<p>${open}</p> The third gatepost lies elsewhere.`, phrases)).toEqual([]);
    expect(phrasesFound(secret, new Map())).toEqual([]);
  });
});
