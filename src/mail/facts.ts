import type { Instant } from '@/core/calendar';
import type { NextChargeTold } from './define';

/** What mails about joining and switching are told. */
export type Joined = {
  tierName: string;
  sentence: string;
  /** The owner's words after joining, as plain text; '' for none. */
  words: string;
  nextCharge: NextChargeTold | null;
};

/** What mails about the course of a subscription are told. */
export type Life = {
  tierName: string;
  nextTry: Instant | null;
  until: Instant | null;
  /** Of the offer it runs under from now on. */
  sentence: string;
};

/** What is told before a charge: the first after a trial, or one that comes after a long period. */
export type BeforeCharge = NextChargeTold & {
  tierName: string;
  methodLabel: string | null;
  sentence: string;
};
