import { apiSubscriptions } from '@/desk/services/api-subscriptions';
import { answerCall } from '../answer';

export const GET = (request: Request): Promise<Response> =>
  answerCall(request, apiSubscriptions, (query) => query);
