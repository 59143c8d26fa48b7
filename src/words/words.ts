import type { CoreCode } from '@/core/problem';
import type { Refusal } from '@/core/billing/work';
import { de } from './de';
import { en, members } from './en';
import { formatsOf, type Writing } from './formats';
import type { Language } from './languages';
import { speak, type Key, type MemberKey, type ProblemCode, type Problems, type Words } from './speak';

export type { Key, MemberKey, ProblemCode, Problems, Words };

/** Fails to compile where the core finds something wrong for which there is no sentence. */
const SENTENCES: Record<Key | CoreCode | `refusal.${Refusal}`, string> = en;

type Catalogue = Partial<Record<string, string>>;
const CATALOGUES: Record<Language, Catalogue> = { 'en-GB': en, 'en-US': en, 'de-DE': de };

/** What an owner says in their own words, by key. */
export type Reworded = Partial<Record<MemberKey, string>>;
/** What of a site decides how it speaks. */
export type Speaking = Writing & { reworded: Reworded };

export const isMemberKey = (text: string): text is MemberKey => Object.hasOwn(members, text);

/** The sentence without the owner's rewording. */
export const originalOf = (key: MemberKey, language: Language): string =>
  CATALOGUES[language][key] ?? SENTENCES[key];

/** A message as members read it: reworded by the owner, else in the site's language, else in English. */
function messageOf({ reworded, language }: Speaking, key: string): string | undefined {
  return (reworded as Catalogue)[key] ?? CATALOGUES[language][key] ?? (SENTENCES as Catalogue)[key];
}

/** As members read it: in the site's language, reworded where the owner did. */
export const wordsOf = (site: Speaking): Words =>
  speak(formatsOf(site), site.language, (key) => messageOf(site, key));

/** The messages under some beginnings, for a browser to speak with. */
export const messagesUnder = (site: Speaking, ...beginnings: string[]): Record<string, string> =>
  Object.fromEntries(
    Object.keys(members)
      .filter((key) => beginnings.some((beginning) => key.startsWith(beginning)))
      .map((key) => [key, messageOf(site, key) ?? '']),
  );
