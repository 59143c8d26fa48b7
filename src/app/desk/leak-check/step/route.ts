import { currentActor } from '@/app/session';
import { uploadJson } from '@/app/uploads';
import { stepLeakCheck } from '@/access/services/leak-check';

/** Does the next piece of a leak check: `{ id }`. */
export async function POST(request: Request): Promise<Response> {
  const actor = await currentActor();
  return uploadJson(request, (input) => stepLeakCheck(actor, input));
}
