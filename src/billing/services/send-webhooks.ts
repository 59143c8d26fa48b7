import { Webhook } from 'standardwebhooks';
import { WEBHOOK_WAITS } from '@/core/webhooks';
import { claimMessages, markMessage, type QueuedMessage } from '@/billing/store/webhooks';
import { config } from '@/platform/config';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { unseal } from '@/platform/seal';
import { pool } from '@/platform/store/db';
import { systemUse } from '@/platform/use';
import { postWebhook } from './lib/post-webhook';

const AT_ONCE = 10;

/** Sends the messages that wait, signed by Standard Webhooks. The answer is how many were taken. */
export const sendWebhooks = systemUse('send-webhooks', nothing, async () => {
  const messages = await claimMessages(pool(), AT_ONCE, Math.max(config().LEASE_SECONDS, 15));
  // Side by side: one that does not answer holds up none of the others.
  await Promise.all(messages.map(send));
  return done(messages.length);
});

async function send(message: QueuedMessage): Promise<void> {
  const { id, body, attempts, url } = message;
  let answer = '';
  try {
    const at = new Date();
    const status = await postWebhook(
      url,
      {
        'webhook-id': id,
        'webhook-timestamp': String(Math.floor(at.getTime() / 1000)),
        'webhook-signature': new Webhook(unseal(message.secretSealed)).sign(id, at, body),
      },
      body,
    );
    answer = String(status);
  } catch (error) {
    answer = (error instanceof Error ? error.message : String(error)).slice(0, 200);
  }
  const isSent = /^2\d\d$/.test(answer);
  await markMessage(pool(), message, {
    isSent,
    answer,
    retrySeconds: isSent ? null : (WEBHOOK_WAITS[attempts - 1] ?? null),
  });
}
