import { csvAnswer } from '@/app/text-stream';
import { currentActor, refusal } from '@/app/session';
import { exportAudit } from '@/desk/services/read-audit';

/** The audit as CSV, narrowed as it is on the screen. */
export async function GET(request: Request): Promise<Response> {
  const search = Object.fromEntries(new URL(request.url).searchParams);
  const exported = await exportAudit(await currentActor(), search);
  return exported.ok ? csvAnswer('audit', exported.value.lines) : refusal(exported);
}
