import { redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { returnFromWallet } from '@/checkout/services/pending-checkout';
import type { CheckoutId } from '@/core/ids';

type Context = { params: Promise<{ checkoutId: CheckoutId }> };

/** Where a wallet sends the payer back to. It grants nothing by itself: visitors are asked to sign in. */
export async function GET(_: Request, { params }: Context): Promise<never> {
  const { checkoutId } = await params;
  const back = await returnFromWallet(await currentActor(), checkoutId);
  if (!back.ok)
    redirect(
      back.code === 'sign-in' ? `/sign-in?to=/join/pending/${encodeURIComponent(checkoutId)}` : '/join',
    );
  redirect(back.value.isDone ? `/join/done/${checkoutId}` : `/join/pending/${checkoutId}`);
}
