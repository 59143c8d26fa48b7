import { SiteLink } from '@/kit/site-link';
import type { Words } from '@/words/speak';
import { CountryPicker } from './country-picker';

type Props = {
  t: Words;
  sentence: string;
  trialUsed: boolean;
  today: string;
  /** What credit takes off the first charge, and why. */
  credits: { words: string; amount: string }[];
  /** The tax that the first charge holds. */
  tax: { words: string; amount: string; isToday: boolean } | null;
  /** Where the tax is reckoned for, where that makes a difference. */
  country: { code: string; all: { code: string; name: string }[] } | null;
  /** What else should be known before paying. */
  notes: string[];
  next: { date: string; amount: string } | null;
  rows: { date: string; amount: string; fee: string | null }[];
  more: number;
  year: string | null;
  others: { name: string; href: string }[];
};

/** What it costs today and next: in view all through checkout. */
export function ChargeSummary({
  t,
  sentence,
  trialUsed,
  today,
  credits,
  tax,
  country,
  notes,
  next,
  rows,
  more,
  year,
  others,
}: Props) {
  return (
    <aside
      aria-label={t('checkout.summary')}
      className="figures h-fit rounded-xl border border-line bg-surface p-6 lg:sticky lg:top-6 lg:col-start-2 lg:row-span-2 lg:row-start-1"
    >
      <dl>
        <div className="flex items-baseline justify-between gap-4">
          <dt className="font-semibold">{t('checkout.due-today')}</dt>
          <dd className="font-display text-3xl font-bold">{today}</dd>
        </div>
        {credits.map(({ words, amount }) => (
          <div key={words} className="mt-2 flex items-baseline justify-between gap-4 text-open">
            <dt>{words}</dt>
            <dd className="font-semibold">{amount}</dd>
          </div>
        ))}
        {tax?.isToday && <TaxRow {...tax} />}
        <div className="mt-2 flex items-baseline justify-between gap-4 border-t border-line pt-2">
          <dt className="text-muted">
            {next ? t('checkout.next-on', { date: next.date }) : t('checkout.next')}
          </dt>
          <dd className="font-semibold">{next ? next.amount : t('checkout.none')}</dd>
        </div>
        {tax && !tax.isToday && <TaxRow {...tax} />}
      </dl>
      {country && (
        <CountryPicker
          code={country.code}
          countries={country.all}
          label={t('checkout.country')}
          none={t('checkout.country-none')}
        />
      )}
      <p className="mt-4">{sentence}</p>
      {notes.map((note) => (
        <p key={note} className="mt-2 text-later">
          {note}
        </p>
      ))}
      {trialUsed && <p className="mt-2 text-later">{t('checkout.trial-used')}</p>}
      {rows.length > 1 && (
        <table className="mt-4 hidden w-full sm:table text-[0.9375rem]">
          <caption className="pb-1 text-left text-muted">{t('checkout.dates')}</caption>
          <tbody>
            {rows.map((row) => (
              <tr key={row.date} className="border-t border-line">
                <td className="py-1">{row.date}</td>
                <td className="py-1 text-right">
                  {row.amount}
                  {row.fee && (
                    <span className="block text-sm text-muted">
                      {t('checkout.with-fee', { amount: row.fee })}
                    </span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {year && (
        <p className="mt-2 border-t border-line pt-2 text-[0.9375rem] text-muted">
          {more > 0 && <span className="hidden sm:inline">{t('checkout.more-rows', { count: more })} </span>}
          {year}
        </p>
      )}
      {others.length > 0 && (
        <p className="mt-4 text-[0.9375rem]">
          {others.map((other) => (
            <SiteLink key={other.href} href={other.href} className="mr-3 text-spruce underline">
              {t('checkout.instead', { offer: other.name })}
            </SiteLink>
          ))}
        </p>
      )}
    </aside>
  );
}

function TaxRow({ words, amount }: { words: string; amount: string }) {
  return (
    <div className="mt-2 flex items-baseline justify-between gap-4 text-[0.9375rem] text-muted">
      <dt>{words}</dt>
      <dd>{amount}</dd>
    </div>
  );
}
