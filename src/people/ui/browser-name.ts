import Bowser from 'bowser';
import type { Words } from '@/words/speak';

/** A browser as people call it, "Firefox on Linux", from what it says of itself. */
export function browserName(agent: string, t: Words): string {
  if (!agent) return t('details.browser');
  const { browser, os } = Bowser.parse(agent);
  const name = browser.name ?? t('details.browser');
  return os.name ? t('details.browser-on', { browser: name, system: os.name }) : name;
}
