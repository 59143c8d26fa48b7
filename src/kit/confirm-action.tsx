import type { ReactNode } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from './action-form';
import { Confirm } from './confirm';

type Props = {
  action: FormAction;
  /** What the action is told, by the names of its fields. */
  fields: Record<string, string>;
  summary: string;
  question: string;
  yes: string;
  /** What the button says meanwhile. */
  busy: string;
  /** More that can be said with it. */
  children?: ReactNode;
};

/** A quiet button that asks before it does what cannot be undone. */
export function ConfirmAction({ action, fields, summary, question, yes, busy, children }: Props) {
  return (
    <Confirm look="quiet" summary={summary} question={question}>
      <ActionForm action={action} className="grid gap-3">
        {Object.entries(fields).map(([name, value]) => (
          <input key={name} type="hidden" name={name} value={value} />
        ))}
        {children}
        <SubmitButton busy={busy} look="bad" className="w-fit">
          {yes}
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    </Confirm>
  );
}
