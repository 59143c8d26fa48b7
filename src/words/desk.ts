import { en } from './en';
import { desk as sentences } from './en/desk';
import { deskFormatsOf, type Writing } from './formats';
import { deskLocale } from './languages';
import { fill } from './message';
import { speak, type Values, type Words } from './speak';

const MESSAGES: Partial<Record<string, string>> = en;

/** As the Desk says it: in English, with money and dates as the site writes them. */
export const deskWordsOf = (writing: Writing): Words =>
  speak(deskFormatsOf(writing), deskLocale(writing.language), (key) => MESSAGES[key]);

/** In plain English, for commands and logs, which no site has told how to speak. */
export const plainWords = deskWordsOf({ language: 'en-GB', zone: 'UTC' });

/** A sentence of the Desk that holds no money and no dates; another language is another file beside `en/desk`. */
export const desk = <K extends keyof typeof sentences>(key: K, ...[values]: Values<K>): string =>
  fill(sentences[key], 'en-GB', values ?? {});
