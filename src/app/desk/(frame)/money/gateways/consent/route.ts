import { redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { finishConsent } from '@/billing/services/gateway-consent';

/** Where a gateway's consent page sends the owner back to. */
export async function GET(request: Request): Promise<never> {
  const query = new URL(request.url).searchParams;
  const actor = await currentActor();
  const finished = await finishConsent(actor, {
    state: query.get('state') ?? '',
    code: query.get('code'),
  });
  if (finished.ok) redirect(`/desk/money/gateways?connected=${finished.value.id}`);
  redirect(`/desk/money/gateways?problem=${finished.problems['']?.code ?? 'consent.not-traded'}`);
}
