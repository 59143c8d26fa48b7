import { currentActor, refusal } from '@/app/session';
import { myData } from '@/members/services/my-data';

/** What the site knows about the signed-in member, as a JSON file. */
export async function GET(): Promise<Response> {
  const data = await myData(await currentActor());
  if (!data.ok) return refusal(data);
  return new Response(JSON.stringify(data.value, null, 2), {
    headers: {
      'content-type': 'application/json; charset=utf-8',
      'content-disposition': 'attachment; filename="my-data.json"',
      'cache-control': 'private, no-store',
    },
  });
}
