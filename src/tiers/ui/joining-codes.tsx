import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import type { TierId } from '@/core/ids';

type Props = {
  add: FormAction;
  remove: FormAction;
  tierId: TierId;
  codes: { id: string; code: string; uses: number; mostUses: number | null; lastDay: string | null }[];
};

/** The words that admit to joining a tier by code. */
export function JoiningCodes({ add, remove, tierId, codes }: Props) {
  return (
    <section>
      <h2 className="text-xl">Codes that admit</h2>
      {codes.length === 0 && <p className="mt-1 text-closed">No code yet: nobody can join.</p>}
      <ul className="figures mt-2 divide-y divide-line">
        {codes.map((code) => (
          <li key={code.id} className="flex flex-wrap items-center gap-x-4 py-1.5">
            <span className="font-semibold">{code.code}</span>
            <span className="text-muted">
              {code.mostUses === null
                ? code.uses === 1
                  ? 'used once'
                  : `used ${code.uses} times`
                : `used ${code.uses} of ${code.mostUses} times`}
              {code.lastDay && `, until ${code.lastDay}`}
            </span>
            <ActionForm action={remove} label={`Remove ${code.code}`} className="ml-auto">
              <input type="hidden" name="tierId" value={tierId} />
              <input type="hidden" name="id" value={code.id} />
              <SubmitButton busy="…" look="quiet" className="min-h-8">
                Remove
              </SubmitButton>
            </ActionForm>
          </li>
        ))}
      </ul>
      <ActionForm action={add} label="Add a code" className="mt-2 grid gap-3" emptyWhenDone>
        <FormMessage />
        <input type="hidden" name="tierId" value={tierId} />
        <div className="grid gap-3 sm:grid-cols-3">
          <TextField name="code" label="Code" autoComplete="off" />
          <TextField name="mostUses" label="At most" inputMode="numeric" placeholder="any number" />
          <TextField name="lastDay" label="Last day" type="date" />
        </div>
        <SubmitButton busy="Adding…" look="quiet" className="w-fit">
          Add the code
        </SubmitButton>
      </ActionForm>
    </section>
  );
}
