/** The most that one call may bring: enough for the longest page with its text, and too little to keep a process busy. */
export const MOST = { characters: 1_000_000, values: 50_000, depth: 60 };

export type Breach = 'too large' | 'too deep' | 'unreadable';

/**
 * Whether an input stays within bounds, in time that grows with its size alone and without recursion. `unreadable`: it
 * holds a NUL or half of a surrogate pair, which the database cannot store as text.
 */
export function breachOf(input: unknown, most = MOST): Breach | null {
  let [characters, values] = [0, 0];
  const open: { value: unknown; depth: number }[] = [{ value: input, depth: 0 }];
  for (let next = open.pop(); next; next = open.pop()) {
    const { value, depth } = next;
    if (++values > most.values) return 'too large';
    if (depth > most.depth) return 'too deep';
    if (typeof value === 'string') {
      characters += value.length;
      if (characters > most.characters) return 'too large';
      if (isUnreadable(value)) return 'unreadable';
    } else if (typeof value === 'object' && value !== null && !ArrayBuffer.isView(value)) {
      if (Array.isArray(value) && value.length > most.values) return 'too large';
      for (const [key, inner] of Array.isArray(value) ? value.entries() : Object.entries(value)) {
        if (typeof key === 'string') {
          characters += key.length;
          if (isUnreadable(key)) return 'unreadable';
        }
        open.push({ value: inner, depth: depth + 1 });
        if (open.length > most.values) return 'too large';
      }
    }
  }
  return null;
}

const isUnreadable = (text: string): boolean => text.includes('\0') || !isWellFormed(text);

// In every Node.js from 20 on, and not yet in the types.
const isWellFormed = (text: string): boolean =>
  (text as unknown as { isWellFormed(): boolean }).isWellFormed();
