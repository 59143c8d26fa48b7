import { apiMembers } from '@/members/services/api-members';
import { answerCall } from '../answer';

export const GET = (request: Request): Promise<Response> => answerCall(request, apiMembers, (query) => query);
