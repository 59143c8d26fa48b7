import { redirect } from 'next/navigation';
import { z } from 'zod';
import { signInSession, takeJoining } from '@/app/session';
import { returnFromWallet } from '@/services/pending-joining';

/** Where a wallet sends the payer back to. Only the browser that began the joining is signed in by it. */
export async function GET(
  _: Request,
  { params }: { params: Promise<{ joiningId: string }> },
): Promise<never> {
  const { joiningId } = await params;
  const joining = z.uuid().safeParse(joiningId).success ? await returnFromWallet(joiningId) : null;
  if (!joining) redirect('/join');
  if (joining.state !== 'done' || !joining.memberId) redirect(`/join/pending/${joiningId}`);
  if (await takeJoining(joiningId)) await signInSession(joining.memberId);
  redirect(`/join/done/${joiningId}`);
}
