import clsx from 'clsx';
import { formatLength } from '@/core/calendar';
import { formatMoney } from '@/core/money';
import type { StepDraft } from '@/core/offers/draft';
import { everyWords } from '@/core/offers/sentence';
import type { Offer, Step } from '@/core/offers/offer';

function caption(step: Step): string {
  if (step.kind === 'repeat')
    return step.times === null
      ? `${everyWords(step.every)}, until cancelled`
      : `${everyWords(step.every)}, ${step.times} times`;
  if (step.lasts === 'forever') return 'for good';
  return 'until' in step.lasts ? `until ${step.lasts.until}` : formatLength(step.lasts);
}

/** The offer on a time line: trials hatched, prices solid, an open right edge where it never ends. */
export function StepStrip({ steps, offer }: { steps: StepDraft[]; offer: Offer | null }) {
  return (
    <ol className="flex min-h-20" aria-label="The steps in order">
      {steps.map((draft, index) => {
        const step = offer?.steps[index];
        const currency = offer?.currency ?? '';
        const isEndless =
          step &&
          ((step.kind === 'repeat' && step.times === null) ||
            (step.kind === 'once' && step.lasts === 'forever'));
        return (
          <li
            key={index}
            className={clsx(
              'flex flex-col border-y border-l px-4 py-3',
              draft.kind === 'trial'
                ? 'flex-1 border-later/50 bg-later-wash text-later hatch'
                : 'flex-[2] border-open/50 bg-open-wash text-open',
              index === 0 && 'rounded-l-lg',
              index === steps.length - 1 &&
                (isEndless
                  ? 'border-r-2 border-r-transparent [mask-image:linear-gradient(to_right,black_80%,transparent)]'
                  : 'rounded-r-lg border-r'),
            )}
          >
            <span className="figures font-display text-lg font-semibold">
              {step ? (step.amount === 0 ? 'Free' : formatMoney(step.amount, currency, true)) : '…'}
            </span>
            <span className="text-[0.9375rem]">{step ? caption(step) : 'not filled in yet'}</span>
          </li>
        );
      })}
    </ol>
  );
}
