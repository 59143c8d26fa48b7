/** Merge fields: "{first name}" in an owner's text is filled in for the member who reads it. */
export type MergeFields = Record<string, string>;

const FIELD = /\{([^{}\n]*)\}/g;

/** The fields in words that are none of the known ones, as they were typed. */
export function unknownFields(words: string, known: readonly string[]): string[] {
  return [...words.matchAll(FIELD)]
    .map((match) => match[1] ?? '')
    .filter((name) => !known.includes(nameOf(name)));
}

/** The words with their fields filled in. What is typed inside a field's value is never read as a field again. */
export function mergeWords(words: string, fields: MergeFields): string {
  return words.replace(FIELD, (whole, name: string) => fields[nameOf(name)] ?? whole);
}

const nameOf = (typed: string): string => typed.trim().toLowerCase().replace(/\s+/g, ' ');

/** Words as paragraphs: a blank line parts them, a single line end does too. */
export const paragraphs = (words: string): string[] =>
  words
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

/** What the owner changed of a mail. `subject` and `words` are '' where they are ours alone. */
export type MailSetting = { isOn: boolean; subject: string; words: string };
