import { boundedText } from '@/app/bounded-body';
import { currentActor } from '@/app/session';
import { receiveGatewayEvent } from '@/billing/services/receive-gateway-event';
import type { GatewayAccountId } from '@/core/ids';

const MOST_BYTES = 100_000;
const STATUS = { stored: 202, 'known already': 200, refused: 401, 'unknown account': 404 } as const;

/** Where a gateway sends its messages. Verified, stored and answered at once; the worker does the rest. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ accountId: GatewayAccountId }> },
): Promise<Response> {
  const body = await boundedText(request, MOST_BYTES);
  if (body instanceof Response) return problem(413, 'too large');
  const received = await receiveGatewayEvent(await currentActor(), {
    accountId: (await params).accountId,
    headers: Object.fromEntries(request.headers),
    body,
  });
  if (!received.ok) return problem(404, 'unknown account');
  const reception = received.value;
  return reception === 'stored' || reception === 'known already'
    ? new Response(null, { status: STATUS[reception] })
    : problem(STATUS[reception], reception);
}

/** Problem details, RFC 9457. */
function problem(status: number, title: string): Response {
  return Response.json(
    { type: 'about:blank', title, status },
    { status, headers: { 'content-type': 'application/problem+json' } },
  );
}
