import { csvAnswer, textStream } from '@/app/text-stream';
import { currentActor, refusal } from '@/app/session';
import { exportMembers } from '@/members/services/export-members';

/** The members that a filter leaves, as CSV or JSON. */
export async function GET(request: Request): Promise<Response> {
  const { form = 'csv', ...filter } = Object.fromEntries(new URL(request.url).searchParams);
  const exported = await exportMembers(await currentActor(), { form, filter });
  if (!exported.ok) return refusal(exported);
  if (form === 'csv') return csvAnswer('members', exported.value.lines);
  return new Response(textStream(exported.value.lines), {
    headers: {
      'content-type': 'application/json; charset=utf-8',
      'content-disposition': 'attachment; filename="members.json"',
      'cache-control': 'private, no-store',
    },
  });
}
