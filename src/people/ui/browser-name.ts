import Bowser from 'bowser';

/** A browser as people call it, "Firefox on Linux", from what it says of itself. */
export function browserName(agent: string): string {
  if (!agent) return 'A browser';
  const { browser, os } = Bowser.parse(agent);
  return `${browser.name ?? 'A browser'}${os.name ? ` on ${os.name}` : ''}`;
}
