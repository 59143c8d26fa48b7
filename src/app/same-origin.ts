import { config } from '@/platform/config';

/** Whether a changing request comes from a page of this site. Browsers send Origin with every POST. */
export function isSameOrigin(request: Request): boolean {
  return request.headers.get('origin') === new URL(config().SITE_URL).origin;
}
