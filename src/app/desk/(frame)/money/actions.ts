'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { formatMoney } from '@/core/money';
import { arrangeGateway } from '@/services/arrange-gateways';
import { cancelSubscription, endSubscription, undoCancel } from '@/services/cancel-subscription';
import { checkAccount, connectGateway, keepWebhookSecret, registerWebhook } from '@/services/connect-gateway';
import { connectTransfer } from '@/services/connect-transfer';
import { beginConsent } from '@/services/gateway-consent';
import { confirmTransfer, importStatement, putAside, type ImportedLine } from '@/services/import-statement';
import { pauseSubscription, resumeSubscription } from '@/services/pause-subscription';
import { processAgain } from '@/services/process-again';
import { refundWasSent } from '@/services/send-refund';
import { refundPayment } from '@/services/refund-payment';

const reload = (message: string) => (): FormState => {
  revalidatePath('/desk', 'layout');
  return { problems: {}, message };
};

/** The mode for which something is connected; left out, the site's. */
const modeOf = (form: FormData): 'test' | 'live' | undefined =>
  (['test', 'live'] as const).find((mode) => mode === text(form, 'mode'));

export async function connectGatewayAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const keys = { siteKey: text(form, 'siteKey'), secretKey: text(form, 'secretKey') };
  return forForm(
    () => connectGateway(actor, 'curlew-cards', keys, modeOf(form)),
    reload('Connected. The keys are right.'),
  );
}

export async function consentAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => beginConsent(actor, text(form, 'gateway'), modeOf(form)),
    ({ url }) => redirect(url),
  );
}

export async function connectTransferAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const fields = ['payee', 'account', 'bank', 'daysToPay'];
  const input = Object.fromEntries(fields.map((field) => [field, text(form, field)]));
  return forForm(
    () => connectTransfer(actor, { ...input, mode: modeOf(form) }),
    reload('Kept. It is a way to pay now.'),
  );
}

export async function registerWebhookAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => registerWebhook(actor, text(form, 'account')),
    reload('Registered; a test message is on its way.'),
  );
}

export async function webhookSecretAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => keepWebhookSecret(actor, text(form, 'account'), text(form, 'secret')),
    reload('Kept; a test message is on its way.'),
  );
}

export async function checkAccountAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(() => checkAccount(actor, text(form, 'account')), reload('The keys are right.'));
}

export async function arrangeGatewayAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = {
    accountId: text(form, 'account'),
    label: text(form, 'label'),
    atCheckout: text(form, 'atCheckout') === 'yes',
    move: text(form, 'move') || 'stay',
  };
  return forForm(() => arrangeGateway(actor, input), reload('Kept.'));
}

export async function refundAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = {
    paymentId: text(form, 'paymentId'),
    requestId: text(form, 'requestId'),
    amount: text(form, 'amount'),
    reason: text(form, 'reason'),
    endsAccess: text(form, 'endsAccess') === 'yes',
  };
  return forForm(
    () => refundPayment(actor, input),
    ({ amount, currency, state }) =>
      reload(
        `${formatMoney(amount, currency)} ${state === 'by-hand' ? 'is in the books as given back: send it by your bank now.' : 'goes back.'}`,
      )(),
  );
}

const DEEDS = {
  cancel: [cancelSubscription, 'Cancelled.'],
  'undo-cancel': [undoCancel, 'It goes on.'],
  end: [endSubscription, 'Ended.'],
  pause: [pauseSubscription, 'It pauses at the end of what is paid.'],
  resume: [resumeSubscription, 'It goes on.'],
} as const;

export async function changeAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const deed = text(form, 'deed');
  const known = Object.entries(DEEDS).find(([name]) => name === deed)?.[1];
  if (!known) return { problems: { '': 'This cannot be done here.' } };
  const [change, word] = known;
  return forForm(() => change(actor, text(form, 'subscription')), reload(word));
}

export async function processAgainAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => processAgain(actor, text(form, 'event')),
    reload('It is processed again in a moment.'),
  );
}

export type ImportState = FormState & { lines?: ImportedLine[]; wasDryRun?: boolean };

export async function importStatementAction(_: FormState, form: FormData): Promise<ImportState> {
  const actor = await currentActor();
  const file = form.get('file');
  const csv = file instanceof File && file.size > 0 ? await file.text() : text(form, 'csv');
  const dryRun = text(form, 'dryRun') === 'yes';
  return forForm(
    () => importStatement(actor, { accountId: text(form, 'account'), csv, dryRun }),
    (lines): ImportState => {
      revalidatePath('/desk', 'layout');
      return {
        problems: {},
        lines,
        wasDryRun: dryRun,
        message: dryRun ? 'Nothing was done yet.' : 'Imported.',
      };
    },
  );
}

export async function confirmTransferAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const lineId = text(form, 'line') || undefined;
  return forForm(
    () => confirmTransfer(actor, { paymentId: text(form, 'payment'), lineId }),
    reload('Confirmed: what it pays is open.'),
  );
}

export async function putAsideAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(() => putAside(actor, text(form, 'line'), text(form, 'note')), reload('Put aside.'));
}

export async function refundSentAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(() => refundWasSent(actor, text(form, 'refund')), reload('Noted as sent.'));
}
