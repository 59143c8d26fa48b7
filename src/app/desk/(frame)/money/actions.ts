'use server';

import { compareBooks } from '@/billing/services/compare-books';
import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { forForm, text, ticked, type FormState, formProblem } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { arrangeGateway } from '@/billing/services/arrange-gateways';
import { cancelSubscription, endSubscription, undoCancel } from '@/billing/services/cancel-subscription';
import {
  checkAccount,
  connectGateway,
  keepWebhookSecret,
  registerWebhook,
} from '@/billing/services/connect-gateway';
import { connectTransfer } from '@/billing/services/connect-transfer';
import { beginConsent } from '@/billing/services/gateway-consent';
import { disconnectGateway } from '@/billing/services/disconnect-gateway';
import { confirmTransfer, ignoreLine, restoreLine } from '@/billing/services/import-statement';
import { pauseSubscription, resumeSubscription } from '@/billing/services/pause-subscription';
import { processAgain } from '@/billing/services/process-again';
import { refundWasSent } from '@/billing/services/send-refund';
import { sendPurchaseCode } from '@/members/services/my-purchases';
import { refundPayment } from '@/billing/services/refund-payment';
import { desk } from '@/words/desk';

const reload = (message: string) => (): FormState => {
  revalidatePath('/desk', 'layout');
  return { problems: {}, message };
};

/** The mode for which something is connected; left out, the site's. */
const modeOf = (form: FormData): 'test' | 'live' | undefined =>
  (['test', 'live'] as const).find((mode) => mode === text(form, 'mode'));

export async function connectGatewayAction(_: FormState, form: FormData): Promise<FormState> {
  const keys = {
    siteKey: text(form, 'siteKey'),
    secretKey: text(form, 'secretKey'),
    password: text(form, 'password'),
  };
  return forForm(
    connectGateway(await currentActor(), { gateway: text(form, 'gateway'), ...keys, mode: modeOf(form) }),
    reload(desk('desk-money.connected-the-keys-are-right')),
  );
}

export async function consentAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    beginConsent(await currentActor(), {
      gateway: text(form, 'gateway'),
      mode: modeOf(form),
      password: text(form, 'password'),
    }),
    ({ url }) => redirect(url),
  );
}

export async function connectTransferAction(_: FormState, form: FormData): Promise<FormState> {
  const fields = ['payee', 'account', 'bank', 'daysToPay', 'password'];
  const input = Object.fromEntries(fields.map((field) => [field, text(form, field)]));
  return forForm(
    connectTransfer(await currentActor(), { ...input, mode: modeOf(form) }),
    reload(desk('desk-money.kept-it-is-a-way')),
  );
}

export async function registerWebhookAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    registerWebhook(await currentActor(), text(form, 'account')),
    reload(desk('desk-money.registered-a-test-message-is')),
  );
}

export async function compareBooksAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    compareBooks(await currentActor(), text(form, 'account')),
    reload(desk('desk-money.compared')),
  );
}

export async function webhookSecretAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    keepWebhookSecret(await currentActor(), {
      accountId: text(form, 'account'),
      secret: text(form, 'secret'),
      password: text(form, 'password'),
    }),
    reload(desk('desk-money.kept-a-test-message-is')),
  );
}

export async function checkAccountAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    checkAccount(await currentActor(), text(form, 'account')),
    reload(desk('desk-money.the-keys-are-right')),
  );
}

export async function arrangeGatewayAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    accountId: text(form, 'account'),
    label: text(form, 'label'),
    atCheckout: ticked(form, 'atCheckout'),
    move: text(form, 'move') || 'stay',
  };
  return forForm(arrangeGateway(await currentActor(), input), reload(desk('desk-money.kept')));
}

export async function refundAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    paymentId: text(form, 'paymentId'),
    requestId: text(form, 'requestId'),
    amount: text(form, 'amount'),
    reason: text(form, 'reason'),
    endsAccess: text(form, 'endsAccess') === 'yes',
    password: text(form, 'password'),
  };
  return forForm(refundPayment(await currentActor(), input), ({ amount, currency, state }, t) =>
    reload(
      desk(state === 'by-hand' ? 'desk-money.refund-recorded' : 'desk-money.refund-started', {
        amount: t.money(amount, currency),
      }),
    )(),
  );
}

const DEEDS = {
  cancel: [cancelSubscription, desk('desk-money.cancelled')],
  undo: [undoCancel, desk('desk-money.it-continues')],
  'take-away': [endSubscription, desk('desk-money.ended')],
  pause: [pauseSubscription, desk('desk-money.it-pauses-at-the-end')],
  resume: [resumeSubscription, desk('desk-money.it-continues')],
} as const;

export async function changeAction(_: FormState, form: FormData): Promise<FormState> {
  const deed = text(form, 'deed');
  const known = Object.entries(DEEDS).find(([name]) => name === deed)?.[1];
  if (!known) return formProblem('', 'form.unknown');
  const [change, word] = known;
  return forForm(change(await currentActor(), text(form, 'subscription')), reload(word));
}

export async function processAgainAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    processAgain(await currentActor(), text(form, 'event')),
    reload(desk('desk-money.it-is-processed-again-in')),
  );
}

export async function disconnectGatewayAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    disconnectGateway(await currentActor(), {
      accountId: text(form, 'account'),
      password: text(form, 'password'),
    }),
    reload(desk('desk-money.disconnected')),
  );
}

export async function confirmTransferAction(_: FormState, form: FormData): Promise<FormState> {
  const lineId = text(form, 'line') || undefined;
  return forForm(
    confirmTransfer(await currentActor(), { paymentId: text(form, 'payment'), lineId }),
    reload(desk('desk-money.received-the-member-has-access')),
  );
}

export async function ignoreLineAction(_: FormState, form: FormData): Promise<FormState> {
  const lineId = text(form, 'line');
  return forForm(ignoreLine(await currentActor(), { lineId, because: text(form, 'because') }), () => ({
    ...reload(desk('desk-money.ignored'))(),
    undo: { line: lineId },
  }));
}

export async function restoreLineAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    restoreLine(await currentActor(), text(form, 'line')),
    reload(desk('desk-money.line-restored')),
  );
}

export async function refundSentAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    refundWasSent(await currentActor(), text(form, 'refund')),
    reload(desk('desk-money.marked-as-sent')),
  );
}

export async function sendPurchaseCodeAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(sendPurchaseCode(await currentActor(), text(form, 'purchase')), ({ email }) => ({
    problems: {},
    message: desk('desk-products.code-sent', { email }),
  }));
}
