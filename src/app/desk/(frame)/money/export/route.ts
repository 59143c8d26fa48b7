import { csvAnswer } from '@/app/text-stream';
import { currentActor, refusal } from '@/app/session';
import { exportMoney } from '@/desk/services/export-money';
import { readListSearch } from '../query';

/** A list of the Money place as CSV, narrowed and ordered as it is on the screen. */
export async function GET(request: Request): Promise<Response> {
  const search = Object.fromEntries(new URL(request.url).searchParams);
  const list = search.list ?? 'payments';
  const exported = await exportMoney(await currentActor(), { ...readListSearch(search), list });
  if (!exported.ok) return refusal(exported);
  return csvAnswer(exported.value.name, exported.value.lines);
}
