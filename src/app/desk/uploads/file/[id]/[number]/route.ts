import { currentActor, refusal } from '@/app/session';
import { upload } from '@/app/uploads';
import { mayUpload } from '@/content/services/save-picture';
import { takePiece } from '@/content/services/upload-file';
import { PIECE_BYTES } from '@/core/upload-bounds';

type Props = { params: Promise<{ id: string; number: string }> };

/** Takes one piece of an upload, as the body by itself. */
export async function POST(request: Request, { params }: Props): Promise<Response> {
  const [actor, { id, number }] = [await currentActor(), await params];
  const allowed = await mayUpload(actor);
  if (!allowed.ok) return refusal(allowed);
  return upload(request, PIECE_BYTES, (bytes) => takePiece(actor, { id, number: Number(number), bytes }));
}
