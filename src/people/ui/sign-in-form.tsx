import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextField } from '@/kit/field';

/** Signs in where one stands, and goes on at `to`. */
export function SignInForm({
  action,
  to,
  onNight = false,
}: {
  action: FormAction;
  to: string;
  onNight?: boolean;
}) {
  return (
    <ActionForm action={action} label="Sign in" className="mt-4 grid max-w-sm gap-4">
      <FormMessage onNight={onNight} />
      <input type="hidden" name="to" value={to} />
      <TextField name="email" label="Email" type="email" autoComplete="username" required />
      <TextField name="password" label="Password" type="password" autoComplete="current-password" required />
      <SubmitButton busy="Signing in…" look={onNight ? 'lamp' : 'main'}>
        Sign in
      </SubmitButton>
    </ActionForm>
  );
}

/** Signs in without a password: a code is mailed. */
export function AskForCode({ action, to }: { action: FormAction; to: string }) {
  return (
    <details className="mt-6">
      <summary className="w-fit list-none text-spruce underline">Email me a code instead</summary>
      <ActionForm action={action} label="Email me a code" className="mt-3 grid gap-3">
        <input type="hidden" name="to" value={to} />
        <TextField name="email" label="Email for the code" type="email" autoComplete="username" />
        <SubmitButton busy="Sending…" look="quiet" className="w-fit">
          Send code
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    </details>
  );
}

/** Uses a mailed link up, by a press of a button: programs that read mail open links too. */
export function UseLink({ action, token }: { action: FormAction; token: string }) {
  return (
    <ActionForm action={action} className="mt-4 grid gap-3">
      <input type="hidden" name="token" value={token} />
      <FormMessage />
      <SubmitButton busy="Opening…" className="w-fit">
        Continue
      </SubmitButton>
    </ActionForm>
  );
}
