import { z } from 'zod';
import { pictureById } from '@/services/save-picture';

/** A picture never changes: another picture has another address. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  const picture = z.uuid().safeParse(id).success ? await pictureById(id) : undefined;
  if (!picture) return new Response('No such picture.', { status: 404 });
  return new Response(new Uint8Array(picture.bytes), {
    headers: {
      'content-type': 'image/webp',
      'cache-control': 'public, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
      'content-security-policy': "default-src 'none'",
    },
  });
}
