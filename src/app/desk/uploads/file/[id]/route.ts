import { currentActor } from '@/app/session';
import { uploadJson } from '@/app/uploads';
import { finishUpload } from '@/content/services/upload-file';

type Props = { params: Promise<{ id: string }> };

/** Ends an upload: `{ itemId }` in, '' for a new item; the item out. */
export async function POST(request: Request, { params }: Props): Promise<Response> {
  const [actor, { id }] = [await currentActor(), await params];
  return uploadJson(request, (input) =>
    finishUpload(actor, { ...(typeof input === 'object' && input !== null ? input : {}), id }),
  );
}
