import { apiMember } from '@/members/services/api-members';
import { answerCall } from '../../answer';

type Context = { params: Promise<{ id: string }> };

export async function GET(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return answerCall(request, apiMember, () => ({ id }));
}
