import {
  formatDate,
  formatDateTime,
  formatDay,
  formatDayMonth,
  formatMonth,
  formatShortDay,
  formatShortMonth,
  formatUntil,
  formatWeekday,
  type Instant,
  type LocalDate,
  type LocalMonth,
} from '@/core/instants';
import { sizeIn } from '@/core/content/media';
import { formatCount, formatMoney } from '@/core/money';
import { deskLocale, type Language } from './languages';

/** How a site writes money, numbers and dates. Amounts in minor units; instants are shown in the site's zone. */
export type Formats = {
  /** The locale of money and numbers. */
  locale: Language;
  zone: string;
  /** "£6.00", or "£6" with `short` where nothing follows the point. */
  money(amount: number, currency: string, short?: boolean): string;
  count(n: number): string;
  /** "GBP · British Pound". */
  currency(code: string): string;
  /** "a, b and c". */
  list(items: readonly string[]): string;
  date(at: Instant): string;
  /** The last day of what ends at an instant. */
  until(end: Instant): string;
  dateTime(at: Instant): string;
  /** The day and month alone. */
  dayMonth(at: Instant): string;
  /** A date without its day of the week. */
  day(date: LocalDate): string;
  month(month: LocalMonth): string;
  /** "26 Nov", where many are side by side. */
  shortDay(date: LocalDate): string;
  /** "Thu". */
  weekday(date: LocalDate): string;
  /** "Nov 2026", where twelve are side by side. */
  shortMonth(month: LocalMonth): string;
  /** How large a file is: "1.4 MB". Bytes. */
  size(bytes: number): string;
};

export type Writing = { language: Language; zone: string };

/** @param dates the locale of dates and lists, where it is not that of money and numbers */
function formats(locale: Language, zone: string, dates: Language): Formats {
  return {
    locale,
    zone,
    money: (amount, currency, short) => formatMoney(amount, currency, locale, short),
    count: (n) => formatCount(n, locale),
    currency: (code) => `${code} · ${new Intl.DisplayNames(dates, { type: 'currency' }).of(code) ?? code}`,
    list: (items) => new Intl.ListFormat(dates).format(items),
    date: (at) => formatDate(at, zone, dates),
    until: (end) => formatUntil(end, zone, dates),
    dateTime: (at) => formatDateTime(at, zone, dates),
    dayMonth: (at) => formatDayMonth(at, zone, dates),
    day: (date) => formatDay(date, dates),
    month: (month) => formatMonth(month, dates),
    shortDay: (date) => formatShortDay(date, dates),
    weekday: (date) => formatWeekday(date, dates),
    shortMonth: (month) => formatShortMonth(month, dates),
    size: (bytes) => {
      const { amount, unit } = sizeIn(bytes);
      return new Intl.NumberFormat(locale, { style: 'unit', unit, unitDisplay: 'short' }).format(amount);
    },
  };
}

/** As members read it. */
export const formatsOf = ({ language, zone }: Writing): Formats => formats(language, zone, language);

/** As the Desk writes it: money and numbers as the site does, among English words. */
export const deskFormatsOf = ({ language, zone }: Writing): Formats =>
  formats(language, zone, deskLocale(language));
