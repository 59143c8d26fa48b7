'use client';

import clsx from 'clsx';
import type { KeyCut } from '@/core/key-cut';
import { isEndless, type Offer, type Step } from '@/core/offers/offer';
import { everyWords, lengthWords } from '@/words/offers';
import type { Words } from '@/words/speak';
import { useDeskWords } from '@/kit/desk-words';
import { TierName } from '@/kit/key-cut';
import { SortableList, SortableRow } from '@/kit/sortable-list';
import { KIND_NAMES, type KeyedStep } from './offer-step';
import { desk } from '@/words/desk';

type Props = {
  steps: KeyedStep[];
  /** What the steps mean; null while something in them is not right yet. */
  offer: Offer | null;
  hasProblem: (index: number) => boolean;
  tierOf: (id: string) => { name: string; keyCut: KeyCut } | undefined;
  onMove: (keys: string[]) => void;
  onChoose: (key: string) => void;
};

/** The offer on a time line: trials hatched, prices solid, an open right edge where it never ends. Steps are dragged here. */
export function StepStrip({ steps, offer, hasProblem, tierOf, onMove, onChoose }: Props) {
  const t = useDeskWords();
  return (
    <SortableList
      ids={steps.map(({ key }) => key)}
      nameOf={(key) => KIND_NAMES[steps.find((step) => step.key === key)?.draft.kind ?? 'repeat']}
      onMove={onMove}
      across
      className="flex min-h-20 relative overflow-x-auto"
      label={desk('desk-tiers.the-steps-in-order')}
    >
      {steps.map(({ key, draft }, index) => {
        const step = offer?.steps[index];
        const endless = step !== undefined && isEndless(step);
        const tier = draft.tier ? tierOf(draft.tier) : undefined;
        return (
          <SortableRow
            key={key}
            id={key}
            name={desk('desk-tiers.step', {
              index: index + 1,
              kind: KIND_NAMES[draft.kind].toLowerCase(),
            })}
            isFixed={steps.length === 1}
            className={clsx(
              'flex min-w-36 items-start border-y border-l py-3 pr-2 pl-3',
              !step
                ? 'flex-[2] border-line bg-surface text-muted'
                : draft.kind === 'trial'
                  ? 'flex-1 border-later/50 bg-later-wash text-later hatch'
                  : 'flex-[2] border-open/50 bg-open-wash text-open',
              index === 0 && 'rounded-l-lg',
              index === steps.length - 1 &&
                (endless
                  ? 'border-r-2 border-r-transparent [mask-image:linear-gradient(to_right,black_80%,transparent)]'
                  : 'rounded-r-lg border-r'),
            )}
          >
            <button type="button" onClick={() => onChoose(key)} className="min-w-0 flex-1 text-left">
              <span className="figures block font-display text-lg font-semibold">
                {step
                  ? step.amount === 0
                    ? desk('desk-tiers.free')
                    : t.money(step.amount, offer.currency, true)
                  : '…'}
              </span>
              <span className="block text-[0.9375rem]">
                {step
                  ? caption(step, t)
                  : hasProblem(index)
                    ? desk(draft.amount ? 'desk-tiers.needs-attention' : 'desk-tiers.amount-missing')
                    : KIND_NAMES[draft.kind]}
              </span>
              {tier && (
                <span className="block text-[0.9375rem]">
                  <TierName cut={tier.keyCut} name={tier.name} size={13} />
                </span>
              )}
            </button>
          </SortableRow>
        );
      })}
    </SortableList>
  );
}

function caption(step: Step, t: Words): string {
  if (step.kind === 'repeat')
    return step.times === null
      ? desk('desk-tiers.until-cancelled-inline', { every: everyWords(step.every, t) })
      : `${everyWords(step.every, t)}, ${desk('desk-tiers.times', { times: step.times })}`;
  if (step.lasts === 'forever') return desk('desk.for-good');
  return 'until' in step.lasts
    ? desk('desk-tiers.until-inline', { date: t.day(step.lasts.until) })
    : lengthWords(step.lasts, t);
}
