import Link from 'next/link';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextField } from '@/kit/field';

/** Takes the six digits that were mailed, and sends others on request. */
export function CodeForm({ action, again, back }: { action: FormAction; again: FormAction; back: string }) {
  return (
    <>
      <ActionForm action={action} label="Code" className="mt-6 grid gap-4">
        <FormMessage />
        <TextField
          name="code"
          label="Code"
          inputMode="numeric"
          autoComplete="one-time-code"
          maxLength={12}
          className="max-w-sm"
          hint="Six digits. It works for ten minutes."
          autoFocus
          required
        />
        <SubmitButton busy="Checking…" className="min-h-12 w-fit px-8 text-base">
          Continue
        </SubmitButton>
      </ActionForm>
      <ActionForm action={again} label="New code" className="mt-8 grid gap-2 border-t border-line pt-5">
        <p className="text-muted">
          No email after a minute? Look in your spam folder, request a new code, or{' '}
          <Link href={back} className="text-spruce underline">
            use another address
          </Link>
          .
        </p>
        <FormMessage />
        <SubmitButton busy="Sending…" look="quiet" className="w-fit">
          Send a new code
        </SubmitButton>
      </ActionForm>
    </>
  );
}
