import { ActionForm, FormMessage, SubmitButton, type FormAction } from '../kit/action-form';
import { TextField } from '../kit/field';

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
      <TextField name="email" label="E-mail" type="email" autoComplete="username" required />
      <TextField name="password" label="Password" type="password" autoComplete="current-password" required />
      <SubmitButton busy="Signing in…" look={onNight ? 'lamp' : 'main'}>
        Sign in
      </SubmitButton>
    </ActionForm>
  );
}
