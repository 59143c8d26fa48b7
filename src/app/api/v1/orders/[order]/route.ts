import { apiEndOrder, apiOrder, apiPutOrder } from '@/members/services/api-orders';
import { answerBody, answerCall } from '../../answer';

type Context = { params: Promise<{ order: string }> };

export async function GET(request: Request, { params }: Context): Promise<Response> {
  const { order } = await params;
  return answerCall(request, apiOrder, () => ({ order }));
}
export const PUT = async (request: Request, { params }: Context): Promise<Response> =>
  answerBody(request, apiPutOrder, await params);
export async function DELETE(request: Request, { params }: Context): Promise<Response> {
  const { order } = await params;
  return answerCall(request, apiEndOrder, () => ({ order }));
}
