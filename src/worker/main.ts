import { configOrExit } from '@/platform/config';
import { closeTransport } from '@/mail/send';
import { WORKER } from '@/platform/actor';
import { logOf } from '@/platform/log';
import { NotSetUp } from '@/platform/site';
import { closePools } from '@/platform/store/db';
import type { Use } from '@/platform/use';
import { applyGatewayEvents } from '@/billing/services/apply-gateway-events';
import { compareDueBooks } from '@/billing/services/compare-books';
import { clearTestData } from '@/desk/services/go-live';
import { issueDueDocuments } from '@/documents/services/issue-documents';
import { returnMoney } from '@/billing/services/return-money';
import { runOneDue } from '@/billing/services/run-due';
import { sendMails } from '@/mail/services/send-mails';
import { sendWebhooks } from '@/billing/services/send-webhooks';
import { endGifts } from '@/billing/services/end-gifts';
import { settlePurchases } from '@/billing/services/settle-purchases';
import { settleAgreements } from '@/billing/services/settle-agreements';
import { repairPages } from '@/content/services/page-roles';
import { tidyUp } from '@/desk/services/tidy-up';
import { writeSummaries } from '@/desk/services/write-summaries';
import { remindAndExpire } from '@/checkout/services/unfinished-checkouts';
import { writeLetters } from '@/members/services/write-letters';
import { writeReminders } from '@/billing/services/write-reminders';

configOrExit();
const log = logOf('worker');
/** Rest between rounds in which nothing was found to do. */
const REST_MS = 300;

const stopping = new AbortController();
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => stopping.abort());

type Work = () => Promise<number | boolean>;

/** What a use case of the site itself answers. @throws where it refuses, which would be a fault of ours */
const does =
  <T>(use: Use<T>, read: (value: T) => number | boolean): Work =>
  async () => {
    const answer = await use(WORKER);
    if (!answer.ok) throw new Error(`${use.use.name}: ${JSON.stringify(answer.problems)}`);
    return read(answer.value);
  };
const same = <T>(value: T): T => value;

/** Each kind of work by itself: trouble in one does not hold up the others. */
const WORK: Record<string, Work> = {
  due: does(runOneDue, same),
  mails: does(sendMails, same),
  letters: does(writeLetters, same),
  webhooks: does(sendWebhooks, same),
  events: does(applyGatewayEvents, ({ count, troubles }) => {
    for (const { event, error } of troubles)
      log.error({ err: error, event }, 'a gateway message could not be processed');
    return count;
  }),
};
const CHORES: Record<string, Work> = {
  agreements: does(settleAgreements, same),
  clearing: does(clearTestData, same),
  comparing: does(compareDueBooks, same),
  documents: does(issueDueDocuments, same),
  returns: does(returnMoney, same),
  purchases: does(settlePurchases, same),
  gifts: does(endGifts, same),
  reminders: does(writeReminders, same),
  unfinished: does(remindAndExpire, same),
  summaries: does(writeSummaries, same),
  tidying: does(tidyUp, same),
  pages: does(repairPages, same),
};

async function attempt(name: string, work: Work): Promise<boolean> {
  try {
    return Boolean(await work());
  } catch (error) {
    if (!(error instanceof NotSetUp)) log.error({ err: error, work: name }, 'work failed; it is tried again');
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
