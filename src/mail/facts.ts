import type { Instant } from '@/core/instants';
import type { MailFrame, NextChargeTold, SampleFacts } from './define';
import { nextWords } from './words';

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

export const joinedLines = (mail: Joined, { t }: MailFrame): string[] => [
  t('mail-joined.words', { tier: mail.tierName, sentence: mail.sentence }),
  ...mail.words.split(/\n+/).filter(Boolean),
  mail.nextCharge
    ? t('mails.cancel-before', { next: nextWords(mail.nextCharge, t) })
    : t('mails.nothing-more'),
];

export const sampleJoined = ({ tierName, sentence, welcome, nextCharge }: SampleFacts): Joined => ({
  tierName,
  sentence,
  words: welcome,
  nextCharge,
});

export const sampleLife = ({ tierName, sentence, at }: SampleFacts): Life => ({
  tierName,
  nextTry: at,
  until: at,
  sentence,
});

export const sampleBeforeCharge = ({
  tierName,
  at,
  amount,
  currency,
  methodLabel,
  sentence,
  nextCharge,
}: SampleFacts): BeforeCharge => ({
  tierName,
  at,
  amount,
  credit: nextCharge?.credit ?? 0,
  currency,
  methodLabel,
  sentence,
});
