/** Looking for closed words where they must not be: phrases of a few words, whatever markup or script is between them. */

const LENGTH = 6;
/** A text that is shorter has no words of its own that would tell anything. */
const SHORTEST = 3;

export function wordsIn(text: string): string[] {
  return (
    text
      .normalize('NFKC')
      .toLowerCase()
      .match(/[\p{L}\p{N}]+/gu) ?? []
  );
}

/**
 * Phrases of a text that are not in what of it may be read, one after the other: whatever part of it is eleven words or longer
 * holds one of them. Of a very long text, at most `most`.
 */
export function closedPhrases(whole: string, allowed: string, most = 300): string[] {
  const words = wordsIn(whole);
  const length = Math.min(LENGTH, words.length);
  if (length < SHORTEST) return [];
  const known = new Set(phrasesIn(wordsIn(allowed), length));
  const closed = [...phrasesIn(words, length)].filter((phrase) => !known.has(phrase));
  // The first ones begin with words that may be read.
  const first = Math.min(length - 1, closed.length - 1);
  const step = Math.max(length, Math.ceil((closed.length - first) / most));
  return [...new Set(closed.filter((_, n) => n >= first && (n - first) % step === 0))];
}

function* phrasesIn(words: string[], length: number): Generator<string> {
  for (let at = 0; at + length <= words.length; at++) yield words.slice(at, at + length).join(' ');
}

const ENTITIES: Partial<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  nbsp: ' ',
};

/** What an answer says, once as a page without its markup, once as it is written into scripts and data. */
function readings(answer: string): string[] {
  const plain = answer
    .replace(/<[^>]*>/g, ' ')
    .replace(/&(?:#x([0-9a-f]+)|#(\d+)|(\w+));/gi, (whole, hex?: string, decimal?: string, name?: string) => {
      if (name) return ENTITIES[name.toLowerCase()] ?? whole;
      const code = hex ? Number.parseInt(hex, 16) : Number(decimal);
      return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : ' ';
    });
  const unescaped = answer
    .replace(/\\+u([0-9a-f]{4})/gi, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16)))
    .replace(/\\+[nrt]/g, ' ')
    .replace(/<[^>]*>/g, ' ');
  return [plain, unescaped];
}

/** The phrases that an answer has of those that it must not, each with what they belong to. */
export function phrasesFound(
  answer: string,
  phrases: ReadonlyMap<string, string>,
): { phrase: string; of: string }[] {
  if (phrases.size === 0) return [];
  const lengths = new Set([...phrases.keys()].map((phrase) => phrase.split(' ').length));
  const found = new Map<string, string>();
  for (const reading of readings(answer)) {
    const words = wordsIn(reading);
    for (const length of lengths)
      for (const phrase of phrasesIn(words, length)) {
        const of = phrases.get(phrase);
        if (of !== undefined) found.set(phrase, of);
      }
  }
  return [...found].map(([phrase, of]) => ({ phrase, of }));
}
