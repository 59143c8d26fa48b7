import { Webhook } from 'standardwebhooks';
import type { Faults } from './faults';
import { randomId } from './http';

export type Hook = { id: string; account: string; address: string; secret: string };

/** Seconds to wait before the second, third and later tries of one message. */
const WAITS = [1, 3, 10, 30, 120];
/** How long a message is held back while messages come in any order. */
const HELD_MS = 2000;

export const newHook = (account: string, address: string): Hook => ({
  id: randomId('hook'),
  account,
  address,
  secret: `whsec_${Buffer.from(crypto.getRandomValues(new Uint8Array(24))).toString('base64')}`,
});

/** Sends signed messages, and sends them again until they are taken. Faults lose, double and shuffle them. */
export class WebhookOutbox {
  constructor(private readonly faults: Pick<Faults, 'settings'>) {}

  send(hook: Hook, message: object): void {
    const { messages } = this.faults.settings;
    if (messages === 'lost') return;
    const deliver = (): void => void this.deliver(hook, randomId('msg'), JSON.stringify(message), 0);
    if (messages === 'shuffled') setTimeout(deliver, Math.random() * HELD_MS).unref();
    else if (messages === 'doubled') this.twice(hook, message);
    else deliver();
  }

  private twice(hook: Hook, message: object): void {
    const id = randomId('msg');
    for (const wait of [0, 50])
      setTimeout(() => void this.deliver(hook, id, JSON.stringify(message), 0), wait).unref();
  }

  private async deliver(hook: Hook, id: string, body: string, tries: number): Promise<void> {
    const at = new Date();
    const headers = {
      'content-type': 'application/json',
      'webhook-id': id,
      'webhook-timestamp': String(Math.floor(at.getTime() / 1000)),
      'webhook-signature': new Webhook(hook.secret).sign(id, at, body),
    };
    const taken = await fetch(hook.address, {
      method: 'POST',
      headers,
      body,
      signal: AbortSignal.timeout(10_000),
    })
      .then((response) => response.ok || response.status === 410)
      .catch(() => false);
    const wait = WAITS[tries];
    if (!taken && wait !== undefined)
      setTimeout(() => void this.deliver(hook, id, body, tries + 1), wait * 1000).unref();
  }
}
