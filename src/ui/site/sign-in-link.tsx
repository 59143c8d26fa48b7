import { ActionForm, FormMessage, SubmitButton, type FormAction } from '../kit/action-form';
import { TextField } from '../kit/field';

/** Uses a mailed link up, by a press of a button. */
export function UseLink({ action, token }: { action: FormAction; token: string }) {
  return (
    <ActionForm action={action} className="mt-4 grid gap-3">
      <input type="hidden" name="token" value={token} />
      <FormMessage />
      <SubmitButton busy="Signing in…" className="w-fit">
        Sign in
      </SubmitButton>
    </ActionForm>
  );
}

/** Signs in without a password: a link is mailed. */
export function AskForLink({ action, to }: { action: FormAction; to: string }) {
  return (
    <details className="mt-6">
      <summary className="w-fit list-none text-spruce underline">Sign in without a password</summary>
      <ActionForm action={action} label="Mail me a link" className="mt-3 grid gap-3">
        <input type="hidden" name="to" value={to} />
        <TextField name="email" label="Mail it to" type="email" autoComplete="username" />
        <SubmitButton busy="Sending…" look="quiet" className="w-fit">
          Mail me a link
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    </details>
  );
}
