import { redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { returnFromApproval } from '@/checkout/services/pending-checkout';

type Context = { params: Promise<{ agreementId: string }> };

/** Where a wallet sends a member back to who approved how a subscription is paid from now on. */
export async function GET(_: Request, { params }: Context): Promise<never> {
  await returnFromApproval(await currentActor(), (await params).agreementId);
  redirect('/account');
}
