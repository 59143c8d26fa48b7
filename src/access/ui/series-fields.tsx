import type { Length } from '@/core/instants';
import { ProblemOf } from '@/kit/action-form';
import { CheckField } from '@/kit/field';
import { desk } from '@/words/desk';
import { LengthInput } from '@/kit/length-input';

const FIRST: Length = { n: 1, unit: 'week' };

type Props = {
  each: Length | null;
  firstAtOnce: boolean;
  onChange: (each: Length | null, firstAtOnce: boolean) => void;
};

/** Whether the pages below the one that a rule covers open one by one, and how long one waits for the next. */
export function SeriesFields({ each, firstAtOnce, onChange }: Props) {
  return (
    <div className="mt-5 grid gap-3">
      <CheckField
        name="series"
        label={desk('desk-access.series')}
        hint={desk('desk-access.series-hint')}
        checked={each !== null}
        onChange={(event) => onChange(event.target.checked ? FIRST : null, true)}
      />
      {each && (
        <div className="ml-7 grid gap-3">
          <div className="flex flex-wrap items-center gap-3">
            <span>{desk('desk-access.series-every')}</span>
            <LengthInput
              length={each}
              label={desk('desk-access.series-every')}
              onChange={(length) => onChange(length, firstAtOnce)}
            />
          </div>
          <ProblemOf name="each" />
          <CheckField
            name="firstAtOnce"
            label={desk('desk-access.series-first-at-once')}
            checked={firstAtOnce}
            onChange={(event) => onChange(each, event.target.checked)}
          />
        </div>
      )}
    </div>
  );
}
