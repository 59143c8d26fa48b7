import { currentActor, refusal } from '@/app/session';
import { csvAnswer } from '@/app/text-stream';
import { exportMap } from '@/access/services/map';

/** The map as a CSV file, with the day, the member and the words that it was looked at with. */
export async function GET(request: Request): Promise<Response> {
  const query = new URL(request.url).searchParams;
  const asked = { on: query.get('on') ?? '', also: query.get('also') ?? '', search: query.get('q') ?? '' };
  const found = await exportMap(await currentActor(), asked);
  return found.ok ? csvAnswer('access', found.value.lines()) : refusal(found);
}
