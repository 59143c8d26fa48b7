import type { Instant } from '@/core/calendar';

/** What money is asked for next, once credit has paid its part of it. */
export type NextChargeTold = { at: Instant; amount: number; credit: number; currency: string };

/** What each mail is about. Amounts in minor units; instants are shown as dates in the site's zone. */
export type MailContent =
  | {
      template: 'welcome' | 'switched';
      tierName: string;
      sentence: string;
      /** The owner's words after joining, as plain text; '' for none. */
      words: string;
      nextCharge: NextChargeTold | null;
    }
  | {
      template: 'receipt';
      tierName: string;
      amount: number;
      currency: string;
      joiningFee: number;
      /** Credit that was spent beside the payment. */
      credit: number;
      paidAt: Instant;
      /** Where its invoice stands. */
      path: string;
      methodLabel: string | null;
      nextCharge: NextChargeTold | null;
    }
  | {
      template:
        | 'payment-failed'
        | 'cancelled'
        | 'ended'
        | 'ended-unpaid'
        | 'moved'
        | 'paused'
        | 'resumed'
        | 'dispute-lost';
      tierName: string;
      nextTry: Instant | null;
      until: Instant | null;
      /** Of the offer it runs under from now on. */
      sentence: string;
    }
  | {
      template: 'refunded';
      tierName: string;
      amount: number;
      currency: string;
      /** Sent by staff themselves, because the gateway gives nothing back by a call. */
      byHand: boolean;
      endsAccess: boolean;
    }
  | {
      template: 'transfer-due';
      tierName: string;
      amount: number;
      currency: string;
      payee: string;
      account: string;
      bank: string;
      reference: string;
      until: Instant;
      path: string;
    }
  | (NextChargeTold & {
      /** Told before a charge: the first after a trial, or one that comes after a long period. */
      template: 'trial-ends' | 'renewal-soon';
      tierName: string;
      methodLabel: string | null;
      sentence: string;
    })
  | {
      template: 'card-expires';
      tierName: string;
      methodLabel: string | null;
      /** The last month in which it can pay, "2028-11". */
      expires: string;
      at: Instant;
      path: string;
    }
  | {
      template: 'price-changes';
      tierName: string;
      from: Instant;
      before: string;
      after: string;
      /** Where a wallet is told yes to it; null where nobody has to be asked. */
      approvePath: string | null;
    }
  | { template: 'code'; why: 'sign-in' | 'join' | 'new-address'; secret: MailSecret; minutes: number }
  | { template: 'no-account' }
  | { template: 'address-changed'; email: string }
  | { template: 'unfinished'; tierName: string; secret: MailSecret; days: number };

/** The secret that grants access: sent, but never stored or shown. */
export type MailSecret = { path: string; code?: string };

export type Template = MailContent['template'];

export type MailFrame = {
  siteName: string;
  siteUrl: string;
  zone: string;
  /** '' where the address was never confirmed: then nobody's words are put into a mail to it. */
  firstName: string;
  name: string;
  email: string;
};
