import { failure as german } from './de/failure';
import { failure as english } from './en/failure';
import type { NamesIn } from './message';

type Key = keyof typeof english;
type Values<K extends Key> = NamesIn<(typeof english)[K]> extends never ? [] : [{ number: string }];
export type FailureWords = <K extends Key>(key: K, ...values: Values<K>) => string;

/** What is read where a page fails. @param language a tag such as "de-DE", or a list of them as browsers send it */
export function failureWords(language: string): FailureWords & { language: string } {
  const isGerman = /^de\b/i.test(language);
  const [tag, words] = isGerman ? ['de', german] : ['en', english];
  // Every page carries this in its scripts, so it fills in its one value itself.
  const say: FailureWords = (key, ...[values]) => words[key].replace('{number}', values?.number ?? '');
  return Object.assign(say, { language: tag });
}
