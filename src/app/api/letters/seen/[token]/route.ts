import { currentActor } from '@/app/session';
import { letterSeen } from '@/members/services/letter-opens';

type Context = { params: Promise<{ token: string }> };

/** One transparent pixel (GIF89a). */
const PIXEL = Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64');

/** The picture that a mail program asks for when a letter is opened. It is the same for any token. */
export async function GET(_: Request, { params }: Context): Promise<Response> {
  await letterSeen(await currentActor(), (await params).token);
  return new Response(PIXEL, { headers: { 'content-type': 'image/gif', 'cache-control': 'no-store' } });
}
