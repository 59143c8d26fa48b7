import { currentActor } from '@/app/session';
import { NotAllowed } from '@/services/actor';
import { myData } from '@/services/my-data';

/** What the site knows about whoever is signed in, as a JSON file. */
export async function GET(): Promise<Response> {
  try {
    return new Response(JSON.stringify(await myData(await currentActor()), null, 2), {
      headers: {
        'content-type': 'application/json; charset=utf-8',
        'content-disposition': 'attachment; filename="my-data.json"',
        'cache-control': 'no-store',
      },
    });
  } catch (error) {
    if (error instanceof NotAllowed) return new Response(error.message, { status: 401 });
    throw error;
  }
}
