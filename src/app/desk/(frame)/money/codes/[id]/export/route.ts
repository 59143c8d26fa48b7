import { currentActor, refusal } from '@/app/session';
import { exportCodes } from '@/desk/services/codes-place';

/** The words of a batch of codes as CSV. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const exported = await exportCodes(await currentActor(), (await params).id);
  if (!exported.ok) return refusal(exported);
  return new Response(exported.value.csv, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="codes.csv"',
      'cache-control': 'private, no-store',
    },
  });
}
