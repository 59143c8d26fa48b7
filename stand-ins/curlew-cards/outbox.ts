import { Webhook } from 'standardwebhooks';
import { randomId, type Hook } from './state';

/** Seconds to wait before the second, third and later tries of one message. */
const WAITS = [1, 3, 10, 30, 120];

/** Sends signed messages, and sends them again until they are taken. */
export class WebhookOutbox {
  send(hook: Hook, message: object): void {
    void this.deliver(hook, randomId('msg'), JSON.stringify(message), 0);
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
