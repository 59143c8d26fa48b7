'use client';

import { useState } from 'react';
import { isLocalDate, type Instant, type LocalDate } from '@/core/instants';
import type { Offer } from '@/core/offers/offer';
import { joiningInstant, quoteOffer } from '@/core/offers/quote';
import { useDeskWords } from '@/kit/desk-words';
import type { Words } from '@/words/speak';
import { inputClass } from '@/kit/input-class';

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
          What a member pays
        </h2>
        <label className="flex items-center gap-2 whitespace-nowrap text-muted">
          if they join on
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
            <th className="py-1.5 pr-4 font-semibold">When</th>
            <th className="py-1.5 pr-4 font-semibold">Why</th>
            <th className="py-1.5 text-right font-semibold">Amount</th>
          </tr>
        </thead>
        <tbody>
          {offer && isFreeToday && (
            <tr className="border-t border-line">
              <td className="py-1.5 pr-4">{t.date(start)}</td>
              <td className="py-1.5 pr-4">Joins, nothing due</td>
              <td className="py-1.5 text-right">{t.money(0, offer.currency)}</td>
            </tr>
          )}
          {offer &&
            charges.slice(0, MOST_ROWS).map((charge, index) => (
              <tr key={charge.at} className="border-t border-line">
                <td className="py-1.5 pr-4">{t.date(charge.at)}</td>
                <td className="py-1.5 pr-4">
                  {charge.why === 'trial' ? 'Trial' : `Payment ${index + 1}`}
                  {charge.joiningFee > 0 &&
                    `, with the joining fee of ${t.money(charge.joiningFee, offer.currency, true)}`}
                </td>
                <td className="py-1.5 text-right">{t.money(charge.amount, offer.currency)}</td>
              </tr>
            ))}
        </tbody>
        <tfoot>
          <tr className="border-t-2 border-ink font-semibold">
            <td className="py-1.5 pr-4" colSpan={2}>
              In the first year: {charges.length === 1 ? '1 payment' : `${charges.length} payments`}
              {charges.length > MOST_ROWS && `, the first ${MOST_ROWS} shown`}
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
  if (last?.kind === 'repeat' && last.times === null) return 'Held until the member cancels.';
  return end === null ? 'Held for good.' : `Held until ${t.date(end)}.`;
}
