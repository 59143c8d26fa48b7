import { TextField } from '@/kit/field';

/** Asks for the user’s own password before actions that move much money or say where it goes. */
export function PasswordAgain({ hint }: { hint?: string }) {
  return (
    <TextField
      name="password"
      label="Your password"
      type="password"
      autoComplete="current-password"
      hint={hint}
    />
  );
}
