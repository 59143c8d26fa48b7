import { fileAnswer } from '@/app/file-answer';
import { currentActor } from '@/app/session';
import { openFile } from '@/access/services/open-file';

type Props = { params: Promise<{ id: string; name: string }> };

/** A file, for those whom the rules let in; they are asked each time. */
export async function GET(request: Request, { params }: Props): Promise<Response> {
  const { id } = await params;
  const actor = await currentActor();
  return fileAnswer(request, (range) => openFile(actor, { id, range }));
}
