import { Link } from '@/kit/link';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import type { TierId } from '@/core/ids';
import { desk } from '@/words/desk';

type Props = {
  add: FormAction;
  tierId: TierId;
  codes: { id: string; name: string; uses: number; mostUses: number | null; lastDay: string | null }[];
};

/** The words that admit to joining a tier by code. */
export function JoiningCodes({ add, tierId, codes }: Props) {
  return (
    <section>
      <h2 className="text-xl">{desk('desk-tiers.codes-that-admit')}</h2>
      {codes.length === 0 && (
        <p className="mt-1 text-closed">{desk('desk-tiers.no-code-yet-nobody-can-join')}</p>
      )}
      <ul className="figures mt-2 divide-y divide-line">
        {codes.map((code) => (
          <li key={code.id} className="flex flex-wrap items-center gap-x-4 py-1.5">
            <Link href={`/desk/money/codes/${code.id}`} className="font-semibold text-spruce underline">
              {code.name}
            </Link>
            <span className="text-muted">
              {code.mostUses === null
                ? code.uses === 1
                  ? desk('desk-tiers.used-once')
                  : desk('desk-tiers.used-any', { uses: code.uses })
                : desk('desk-tiers.used-of-times', { uses: code.uses, mostUses: code.mostUses })}
              {code.lastDay && desk('desk-tiers.until', { lastDay: code.lastDay })}
            </span>
          </li>
        ))}
      </ul>
      <ActionForm
        action={add}
        label={desk('desk-tiers.add-a-code')}
        className="mt-2 grid gap-3"
        emptyWhenDone
      >
        <FormMessage />
        <input type="hidden" name="tierId" value={tierId} />
        <div className="grid gap-3 sm:grid-cols-3">
          <TextField name="code" label={desk('desk-tiers.code')} autoComplete="off" />
          <TextField
            name="mostUses"
            label={desk('desk-tiers.at-most')}
            inputMode="numeric"
            placeholder={desk('desk-tiers.any-number')}
          />
          <TextField name="lastDay" label={desk('desk-tiers.last-day')} type="date" />
        </div>
        <SubmitButton busy={desk('desk-tiers.adding')} look="quiet" className="w-fit">
          {desk('desk-tiers.add-the-code')}
        </SubmitButton>
      </ActionForm>
    </section>
  );
}
