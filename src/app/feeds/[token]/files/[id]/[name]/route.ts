import { fileAnswer } from '@/app/file-answer';
import { feedFile } from '@/access/services/private-feed';
import { VISITOR_ACTOR } from '@/platform/actor';

type Props = { params: Promise<{ token: string; id: string; name: string }> };

/** A file of a private feed, for the player that has its address. */
export async function GET(request: Request, { params }: Props): Promise<Response> {
  const { token, id } = await params;
  return fileAnswer(request, (range) => feedFile(VISITOR_ACTOR, { token, id, range }));
}
