import { config } from '@/platform/config';

const NUMBERED = /^(\d{1,3}(\.\d{1,3}){3}|\[.*\])$/;

/**
 * The site as passkeys know it (WebAuthn Level 2, 5.1.2): they belong to a name, never to a number. A site that is tried
 * out on the machine itself has them under `localhost`.
 */
export function relyingParty(): { id: string; origin: string } {
  const url = new URL(config().SITE_URL);
  if (NUMBERED.test(url.hostname)) url.hostname = 'localhost';
  return { id: url.hostname, origin: url.origin };
}
