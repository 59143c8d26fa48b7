'use client';

import { useState } from 'react';
import { isLocalDate, type Instant, type LocalDate } from '@/core/instants';
import type { Offer } from '@/core/offers/offer';
import { joiningInstant, quoteOffer } from '@/core/offers/quote';
import { useDeskWords } from '@/kit/desk-words';
import type { Words } from '@/words/speak';
import { inputClass } from '@/kit/input-class';
import { desk } from '@/words/desk';

type Props = { offer: Offer | null; zone: string; now: Instant; today: LocalDate };

const MOST_ROWS = 14;

/** Every date and amount that someone pays within a year of joining on a chosen day. */
export function SchedulePreview({ offer, zone, now, today }: Props) {
  const t = useDeskWords();
  const [day, setDay] = useState(today);
  const start = isLocalDate(day) ? joiningInstant(day, now, zone) : now;
  const {
    charges,
    access,
    firstYearTotal: total,
  } = offer ? quoteOffer(offer, start, zone) : { charges: [], access: [], firstYearTotal: 0 };
  const isFreeToday = charges[0]?.at !== start;
  return (
    <section aria-labelledby="pays">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2 id="pays" className="text-xl">
          {desk('desk-tiers.what-a-member-pays')}
        </h2>
        <label className="flex items-center gap-2 whitespace-nowrap text-muted">
          {desk('desk-tiers.if-they-join-on')}
          <input
            type="date"
            value={day}
            onChange={({ target }) => isLocalDate(target.value) && setDay(target.value)}
            className={`${inputClass} w-44 py-1`}
          />
        </label>
      </div>
      <table className="figures mt-2 w-full" aria-live="polite">
        <thead>
          <tr className="text-left text-muted">
            <th className="py-1.5 pr-4 font-semibold">{desk('desk.when')}</th>
            <th className="py-1.5 pr-4 font-semibold">{desk('desk-tiers.why')}</th>
            <th className="py-1.5 text-right font-semibold">{desk('desk.amount')}</th>
          </tr>
        </thead>
        <tbody>
          {offer && isFreeToday && (
            <tr className="border-t border-line">
              <td className="py-1.5 pr-4">{t.date(start)}</td>
              <td className="py-1.5 pr-4">{desk('desk-tiers.joins-nothing-due')}</td>
              <td className="py-1.5 text-right">{t.money(0, offer.currency)}</td>
            </tr>
          )}
          {offer &&
            charges.slice(0, MOST_ROWS).map((charge, index) => (
              <tr key={charge.at} className="border-t border-line">
                <td className="py-1.5 pr-4">{t.date(charge.at)}</td>
                <td className="py-1.5 pr-4">
                  {charge.joiningFee > 0
                    ? desk('desk-tiers.payment-with-fee', {
                        kind: charge.why,
                        number: index + 1,
                        amount: t.money(charge.joiningFee, offer.currency, true),
                      })
                    : desk('desk-tiers.payment', { kind: charge.why, number: index + 1 })}
                </td>
                <td className="py-1.5 text-right">{t.money(charge.amount, offer.currency)}</td>
              </tr>
            ))}
        </tbody>
        <tfoot>
          <tr className="border-t-2 border-ink font-semibold">
            <td className="py-1.5 pr-4" colSpan={2}>
              {charges.length > MOST_ROWS
                ? desk('desk-tiers.first-year-cut', { count: charges.length, shown: MOST_ROWS })
                : desk('desk-tiers.first-year', { count: charges.length })}
            </td>
            <td className="py-1.5 text-right">{offer ? t.money(total, offer.currency) : '…'}</td>
          </tr>
        </tfoot>
      </table>
      {offer && <p className="mt-1 text-muted">{accessWords(access.at(-1)?.to ?? null, offer, t)}</p>}
    </section>
  );
}

function accessWords(end: Instant | null, offer: Offer, t: Words): string {
  const last = offer.steps.at(-1);
  if (last?.kind === 'repeat' && last.times === null) return desk('desk-tiers.held-until-the-member-cancels');
  return end === null
    ? desk('desk-tiers.held-for-good')
    : desk('desk-tiers.held-until', { date: t.date(end) });
}
