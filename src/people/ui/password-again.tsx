import { TextField } from '@/kit/field';
import { desk } from '@/words/desk';

/** Asks for the user’s own password before actions that move much money or say where it goes. */
export function PasswordAgain({ hint }: { hint?: string }) {
  return (
    <TextField
      name="password"
      label={desk('desk-kit.your-password')}
      type="password"
      autoComplete="current-password"
      hint={hint}
    />
  );
}
