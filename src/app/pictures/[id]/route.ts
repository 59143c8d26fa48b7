import { currentActor, refusal } from '@/app/session';
import { pictureById } from '@/content/services/save-picture';

/** A picture never changes: another picture has another address. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const picture = await pictureById(await currentActor(), (await params).id);
  if (!picture.ok) return refusal(picture);
  return new Response(new Uint8Array(picture.value.bytes), {
    headers: { 'content-type': 'image/webp', 'cache-control': 'public, max-age=31536000, immutable' },
  });
}
