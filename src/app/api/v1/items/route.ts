import { apiItems } from '@/access/services/api-items';
import { answerCall } from '../answer';

export const GET = (request: Request): Promise<Response> => answerCall(request, apiItems, (query) => query);
