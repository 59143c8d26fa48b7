import { apiDecision, apiDecisions } from '@/access/services/api-decisions';
import { answerBody, answerCall } from '../answer';

export const GET = (request: Request): Promise<Response> =>
  answerCall(request, apiDecision, (query) => query);
export const POST = (request: Request): Promise<Response> => answerBody(request, apiDecisions);
