import { STATES } from '@/core/billing/states';
import { Button } from '@/kit/button';
import { inputClass } from '@/kit/input-class';
import { desk } from '@/words/desk';
import type { Words } from '@/words/words';

/** A plain form: the filter is in the address and can be sent to a colleague. */
export function MemberFilter({
  t,
  q,
  tier,
  state,
  tiers,
}: {
  t: Words;
  q: string;
  tier: string;
  state: string;
  tiers: { id: string; name: string }[];
}) {
  return (
    <form className="mt-4 flex flex-wrap gap-3" role="search">
      <input
        name="q"
        defaultValue={q}
        data-filter
        aria-label={desk('desk.name-or-email')}
        placeholder={desk('desk.name-or-email')}
        className={`${inputClass} max-w-64`}
      />
      <select
        name="tier"
        defaultValue={tier}
        aria-label={desk('desk-members.holds')}
        className={`${inputClass} max-w-48`}
      >
        <option value="">{desk('desk-members.any-tier')}</option>
        {tiers.map((t) => (
          <option key={t.id} value={t.id}>
            {t.name}
          </option>
        ))}
      </select>
      <select
        name="state"
        defaultValue={state}
        aria-label={desk('desk.state')}
        className={`${inputClass} max-w-48`}
      >
        <option value="">{desk('desk-members.any-state')}</option>
        {[...STATES, 'disputed' as const].map((one) => (
          <option key={one} value={one}>
            {t(`state.${one}`)}
          </option>
        ))}
        <option value="none">{desk('desk-members.no-subscription')}</option>
      </select>
      <Button type="submit" look="quiet">
        {desk('desk-members.filter')}
      </Button>
    </form>
  );
}
