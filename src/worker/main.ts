import pino from 'pino';
import { configOrExit } from '@/config';
import { closeTransport } from '@/mail/send';
import { applyGatewayEvent } from '@/services/apply-gateway-event';
import { clearTestData } from '@/services/go-live';
import { issueDocuments } from '@/services/issue-documents';
import { returnMoney } from '@/services/return-money';
import { runOneDue } from '@/services/run-due';
import { settleAgreements } from '@/services/settle-agreement';
import { sendMails } from '@/services/send-mails';
import { NotSetUp } from '@/services/site';
import { sweepPayments } from '@/services/sweep-payments';
import { writeReminders } from '@/services/write-reminders';
import { remindAndExpire } from '@/services/unfinished-joinings';
import { deleteOldQuotes } from '@/store/credits';
import { closePools, pool } from '@/store/db';
import { claimGatewayEvents, postponeGatewayEvent } from '@/store/gateways';
import { deleteOldLinks } from '@/store/sign-in-links';
import { deleteExpiredSessions } from '@/store/sessions';

const { LEASE_SECONDS, LOG_LEVEL } = configOrExit();
const log = pino({ level: LOG_LEVEL, base: { part: 'worker' } });
/** Rest between rounds in which nothing was found to do. */
const REST_MS = 300;

const stopping = new AbortController();
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => stopping.abort());

async function gatewayEvents(): Promise<number> {
  const events = await claimGatewayEvents(pool(), 20, LEASE_SECONDS);
  for (const event of events) {
    try {
      await applyGatewayEvent(event);
    } catch (error) {
      log.error({ error: String(error), event: event.id }, 'a gateway message could not be processed');
      await postponeGatewayEvent(pool(), event.id, String(error), 30);
    }
  }
  return events.length;
}

/** Each kind of work by itself: trouble in one does not hold up the others. */
const WORK: Record<string, () => Promise<number | boolean>> = {
  due: runOneDue,
  mails: sendMails,
  events: gatewayEvents,
};
const CHORES: Record<string, () => Promise<number>> = {
  payments: sweepPayments,
  agreements: settleAgreements,
  clearing: clearTestData,
  documents: () => issueDocuments(),
  returns: returnMoney,
  reminders: writeReminders,
  unfinished: remindAndExpire,
  quotes: () => deleteOldQuotes(pool()),
  sessions: () => deleteExpiredSessions(pool()),
  links: () => deleteOldLinks(pool()),
};

async function attempt(name: string, work: () => Promise<number | boolean>): Promise<boolean> {
  try {
    return Boolean(await work());
  } catch (error) {
    if (!(error instanceof NotSetUp))
      log.error({ error: String(error), work: name }, 'work failed; it comes again');
    return false;
  }
}

log.info('worker started');
for (let round = 0; !stopping.signal.aborted; round++) {
  let found = false;
  for (const [name, work] of Object.entries(WORK)) found = (await attempt(name, work)) || found;
  if (round % 10 === 0) for (const [name, work] of Object.entries(CHORES)) await attempt(name, work);
  if (!found) await new Promise((resolve) => setTimeout(resolve, REST_MS));
}
closeTransport();
await closePools();
log.info('worker stopped');
