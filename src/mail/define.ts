import type { MailTopic } from '@/core/mail-topics';
import type { Instant, LocalMonth } from '@/core/instants';
import type { Words } from '@/words/speak';

/** What money is asked for next, once credit has paid its part of it. Minor units. */
export type NextChargeTold = { at: Instant; amount: number; credit: number; currency: string };

/** The secret that grants access: sent, but never stored or shown. */
export type MailSecret = { path: string; code?: string };

export type MailFrame = {
  /** How the site speaks to its members. */
  t: Words;
  siteName: string;
  siteUrl: string;
  /** '' where the address was never confirmed: then nobody's words are put into a mail to it. */
  firstName: string;
  name: string;
  email: string;
  /** Where the reader turns mails of this topic off; for mails that have one. */
  off?: { label: string; path: string };
  /** A picture that is asked for when the mail is opened, where the owner has that counted. */
  seenPath?: string;
};

/** The product's own words of a mail, to which the owner can add. */
export type MailWords = {
  subject: string;
  /** Whether it begins with a greeting of ours; a letter has its own. */
  isGreeted?: false;
  lines: string[];
  /** A text of its own after them. Its HTML was made by us, with all that people typed escaped. */
  body?: { html: string; text: string };
  /** Shown large, by itself. */
  code?: string;
  link: { label: string; path: string };
};

/** What a sample is made from: a real member's own, and what is missing made up. Amounts in minor units. */
export type SampleFacts = {
  siteName: string;
  tierName: string;
  sentence: string;
  /** The tier's words after joining, as plain text. */
  welcome: string;
  nextCharge: NextChargeTold | null;
  /** When something happens next. */
  at: Instant;
  now: Instant;
  amount: number;
  currency: string;
  payment: { amount: number; currency: string; joiningFee: number; at: Instant } | null;
  methodLabel: string | null;
  /** The last month in which the card can pay, "2028-11". */
  expires: LocalMonth | null;
  email: string;
};

/** All there is of one mail, in one place. Facts: amounts in minor units; instants are shown as dates in the site's zone. */
export type MailDefinition<Template extends string, Facts> = {
  template: Template;
  /** Mails that people depend on cannot be switched off. */
  isAlwaysSent?: true;
  /** What its reader turns off with one click. */
  topic?: MailTopic;
  /** Merge fields that it has besides those of every mail. */
  fields: ('tier' | 'amount' | 'date')[];
  /** The value of the merge field `date`. */
  date?: (mail: Facts) => Instant | null;
  words: (mail: Facts, frame: MailFrame) => MailWords;
  sample: (of: SampleFacts) => Facts;
};

export const defineMail =
  <Facts extends object>() =>
  <Template extends string>(mail: MailDefinition<Template, Facts>): MailDefinition<Template, Facts> =>
    mail;
