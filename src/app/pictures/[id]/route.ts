import { currentActor, refusal } from '@/app/session';
import { seePicture } from '@/access/services/see-picture';

type Props = { params: Promise<{ id: string }> };

/**
 * A picture, or with ?size=small a smaller copy. It never changes: another picture has another address. One that not all
 * may see is asked for again each time, and is sent again only to those who have not got it.
 */
export async function GET(request: Request, { params }: Props): Promise<Response> {
  const { id } = await params;
  const isSmall = new URL(request.url).searchParams.get('size') === 'small';
  const picture = await seePicture(await currentActor(), { id, isSmall });
  if (!picture.ok) return refusal(picture);
  const { bytes, isPublic } = picture.value;
  const etag = `"${id}${isSmall ? '-small' : ''}"`;
  const headers = {
    'content-type': 'image/webp',
    'cache-control': isPublic ? 'public, max-age=31536000, immutable' : 'private, no-cache',
    etag,
  };
  if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers });
  return new Response(new Uint8Array(bytes), { headers });
}
