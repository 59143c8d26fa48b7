import { redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { returnFromWallet } from '@/services/pending-joining';

type Context = { params: Promise<{ joiningId: string }> };

/** Where a wallet sends the payer back to. It grants nothing by itself: visitors are asked to sign in. */
export async function GET(_: Request, { params }: Context): Promise<never> {
  const { joiningId } = await params;
  const back = await returnFromWallet(await currentActor(), joiningId);
  if (!back.ok)
    redirect(
      back.code === 'sign-in' ? `/sign-in?to=/join/pending/${encodeURIComponent(joiningId)}` : '/join',
    );
  redirect(back.value.isDone ? `/join/done/${joiningId}` : `/join/pending/${joiningId}`);
}
