import { redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { returnFromApproval } from '@/services/pending-joining';

/** Where a wallet sends a member back to who approved how a subscription is paid from now on. */
export async function GET(
  _: Request,
  { params }: { params: Promise<{ agreementId: string }> },
): Promise<never> {
  const { agreementId } = await params;
  await returnFromApproval(await currentActor(), agreementId);
  redirect('/account');
}
