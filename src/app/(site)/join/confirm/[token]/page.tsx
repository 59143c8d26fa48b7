import type { Metadata } from 'next';
import { ActionForm, FormMessage, SubmitButton } from '@/ui/kit/action-form';
import { confirmAction } from '../../actions';

export const metadata: Metadata = {
  title: 'One more step',
  robots: { index: false },
  referrer: 'no-referrer',
};

/** A button, not a mere visit: programs that look at links in mails must not join people. */
export default async function ConfirmPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  return (
    <div className="mx-auto w-full max-w-xl px-5 py-16">
      <h1 className="text-4xl">One more step</h1>
      <p className="mt-3 text-lg text-muted">Say that this address is yours, and everything opens.</p>
      <ActionForm action={confirmAction} label="Prove your address" className="mt-6 grid gap-4">
        <FormMessage />
        <input type="hidden" name="token" value={token} />
        <SubmitButton busy="Opening…" className="min-h-12 w-fit px-8 text-base">
          Yes, it is mine
        </SubmitButton>
      </ActionForm>
    </div>
  );
}
