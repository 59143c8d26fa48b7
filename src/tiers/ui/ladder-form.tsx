import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

type Props = {
  action: FormAction;
  ladder: { id: string; name: string; creditUnused: boolean; waitDays: number; downAtOnce: boolean };
};

/** How members go from rung to rung, as a sentence; opened, it can be changed. */
export function LadderForm({ action, ladder }: Props) {
  return (
    <details className="mt-1 text-muted">
      <summary className="w-fit list-none">
        {switchWords(ladder)} <span className="text-spruce underline">{desk('desk-tiers.change')}</span>
      </summary>
      <ActionForm
        action={action}
        label={desk('desk-tiers.the-ladder', { name: ladder.name })}
        className="mt-3 grid gap-4 rounded-card border border-line bg-surface p-4 text-ink"
      >
        <FormMessage />
        <input type="hidden" name="id" value={ladder.id} />
        <TextField name="name" label={desk('desk-tiers.name-of-the-ladder')} defaultValue={ladder.name} />
        <CheckField
          name="creditUnused"
          label={desk('desk-tiers.unused-days-are-credited')}
          hint={desk('desk-tiers.members-who-switch-up-pay')}
          defaultChecked={ladder.creditUnused}
        />
        <CheckField
          name="downAtOnce"
          label={desk('desk-tiers.switch-down-immediately')}
          hint={desk('desk-tiers.otherwise-a-switch-down-comes')}
          defaultChecked={ladder.downAtOnce}
        />
        <TextField
          name="waitDays"
          label={desk('desk-tiers.days-before-a-first-switch-up')}
          inputMode="numeric"
          defaultValue={String(ladder.waitDays)}
          className="w-56"
        />
        <SubmitButton busy={desk('desk.saving')} className="w-fit">
          {desk('desk-tiers.save-the-ladder')}
        </SubmitButton>
      </ActionForm>
    </details>
  );
}

function switchWords({ creditUnused, waitDays, downAtOnce }: Props['ladder']): string {
  return desk('desk-tiers.switching', {
    wait: waitDays,
    credit: creditUnused ? 'yes' : 'no',
    down: downAtOnce ? 'now' : 'later',
  });
}
