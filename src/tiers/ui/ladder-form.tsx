import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, TextField } from '@/kit/field';

type Props = {
  action: FormAction;
  ladder: { id: string; name: string; creditUnused: boolean; waitDays: number; downAtOnce: boolean };
};

/** How members go from rung to rung, as a sentence; opened, it can be changed. */
export function LadderForm({ action, ladder }: Props) {
  return (
    <details className="mt-1 text-muted">
      <summary className="w-fit list-none">
        {switchWords(ladder)} <span className="text-spruce underline">Change</span>
      </summary>
      <ActionForm
        action={action}
        label={`The ladder ${ladder.name}`}
        className="mt-3 grid gap-4 rounded-card border border-line bg-surface p-4 text-ink"
      >
        <FormMessage />
        <input type="hidden" name="id" value={ladder.id} />
        <TextField name="name" label="Name of the ladder" defaultValue={ladder.name} />
        <CheckField
          name="creditUnused"
          label="Unused days are credited"
          hint="Members who switch up pay less by the unused days they’ve paid for."
          defaultChecked={ladder.creditUnused}
        />
        <CheckField
          name="downAtOnce"
          label="Switch down immediately"
          hint="Otherwise a switch down comes at the end of what is paid."
          defaultChecked={ladder.downAtOnce}
        />
        <TextField
          name="waitDays"
          label="Days before a first switch up"
          inputMode="numeric"
          defaultValue={String(ladder.waitDays)}
          className="w-56"
        />
        <SubmitButton busy="Saving…" className="w-fit">
          Save the ladder
        </SubmitButton>
      </ActionForm>
    </details>
  );
}

function switchWords({ creditUnused, waitDays, downAtOnce }: Props['ladder']): string {
  const up = waitDays > 0 ? `up after ${waitDays === 1 ? 'a day' : `${waitDays} days`}` : 'up at any time';
  const credit = creditUnused ? ', with unused days credited' : ', without credit for unused days';
  return `One of these at a time: ${up}${credit}; down ${downAtOnce ? 'immediately' : 'at the end of the paid period'}.`;
}
