import { currentActor } from '@/app/session';
import { uploadJson } from '@/app/uploads';
import { beginLeakCheck } from '@/access/services/leak-check';

/** Begins a leak check. */
export async function POST(request: Request): Promise<Response> {
  const actor = await currentActor();
  return uploadJson(request, () => beginLeakCheck(actor));
}
