import { IntlMessageFormat } from 'intl-messageformat';

type Kind = 'plural' | 'select' | 'number';
/** What is named just behind a brace: branches are told from names by their blanks and capitals. */
type NameAt<Text extends string> = Text extends `${infer First}, ${Kind}${string}`
  ? First
  : Text extends '' | `${string} ${string}`
    ? never
    : Text extends Uncapitalize<Text>
      ? Text
      : never;
type NamesAt<Text extends string> = Text extends `${infer Head}{${infer Inner}`
  ? NameAt<Head> | NamesAt<Inner>
  : NameAt<Text>;
/** The names of the values that an ICU message asks for. */
export type NamesIn<Message extends string> = Message extends `${string}{${infer Text}}${infer Rest}`
  ? NamesAt<Text> | NamesIn<Rest>
  : never;

/** Bounded: owners change their sentences now and then, and what they no longer say need not stay. */
const MOST = 5_000;
const formats = new Map<string, IntlMessageFormat>();

function formatOf(message: string, locale: string): IntlMessageFormat {
  const key = `${locale} ${message}`;
  const known = formats.get(key);
  if (known) return known;
  if (formats.size >= MOST) formats.clear();
  const format = new IntlMessageFormat(message, locale, undefined, { ignoreTag: true });
  formats.set(key, format);
  return format;
}

/** A message of ICU with its values. One that lacks a value is a sentence all the same, with "…" in its place. */
export function fill(message: string, locale: string, values: Record<string, string | number>): string {
  // Most have nothing to fill in.
  if (!/[{']/.test(message)) return message;
  try {
    return String(formatOf(message, locale).format(values));
  } catch {
    return message.replace(/\{(\w+)[^{}]*\}/g, '…');
  }
}

type Element = { type: number; value?: unknown; options?: Record<string, { value: Element[] }> };
/** Element types of the parser: 0 is plain text, 5 and 6 choose between branches, 7 is "#". */
const [TEXT, SELECT, PLURAL, COUNT] = [0, 5, 6, 7];

/** The names that a message asks for. @throws where it is no ICU message */
export function namesIn(message: string, locale: string): Set<string> {
  const names = new Set<string>();
  const collect = (elements: Element[]): void => {
    for (const { type, value, options } of elements) {
      if (type !== TEXT && type !== COUNT && typeof value === 'string') names.add(value);
      if (type === SELECT || type === PLURAL)
        for (const branch of Object.values(options ?? {})) collect(branch.value);
    }
  };
  collect(new IntlMessageFormat(message, locale, undefined, { ignoreTag: true }).getAst());
  return names;
}

/** A message as one reads it: its usual branch, with names in braces. @throws where it is no ICU message */
export function readable(message: string, locale: string): string {
  const read = (elements: Element[], counted: string): string =>
    elements
      .map(({ type, value, options }) => {
        const name = typeof value === 'string' ? value : '';
        if (type === TEXT) return name;
        if (type === COUNT) return counted;
        if (type === SELECT || type === PLURAL) return read(options?.other?.value ?? [], `{${name}}`);
        return `{${name}}`;
      })
      .join('');
  return read(new IntlMessageFormat(message, locale, undefined, { ignoreTag: true }).getAst(), '');
}
