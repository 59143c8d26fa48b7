import { currentSite } from '@/app/session';
import { openApi } from '@/core/api/openapi';
import { config } from '@/platform/config';

/** The description of the API, for programs. */
export async function GET(): Promise<Response> {
  const { name } = await currentSite();
  return Response.json(openApi({ name, server: config().SITE_URL }));
}
