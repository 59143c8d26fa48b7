'use client';

import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CopyText } from '@/kit/copy-text';
import { CheckField, TextField } from '@/kit/field';
import { PasswordAgain } from '@/people/ui/password-again';

type Books =
  | {
      ok: true;
      compared: number;
      open: number;
      differ: number;
      differences: { key: string; ours: string; theirs: string }[];
    }
  | { ok: true; none: true }
  | { ok: false; reason: string };
export type GatewayActions = {
  register: FormAction;
  keepSecret: FormAction;
  check: FormAction;
  compare: FormAction;
  arrange: FormAction;
  disconnect: FormAction;
};
type Props = {
  id: string;
  gateway: string;
  label: string;
  mode: 'test' | 'live';
  account: string;
  atCheckout: boolean;
  checked: string | null;
  heard: string | null;
  webhookError: string | null;
  isRegistered: boolean;
  /** Where its messages go; null where it sends none. */
  address: string | null;
  /** What still needs it. */
  inUse: { subscriptions: number; payments: number; refunds: number };
  lastError: string | null;
  carries: string;
  /** Null before they were first compared; `none` where nothing can be compared. */
  books: Books | null;
  /** When the books were compared. */
  compared: string | null;
  actions: GatewayActions | null;
};

function booksWords(books: Books | null, at: string | null): { words: string; good: boolean } {
  if (!books)
    return { words: 'not compared yet; the site compares them every quarter of an hour', good: false };
  if (!books.ok) return { words: `could not be compared on ${at}: ${books.reason}`, good: false };
  if ('none' in books) return { words: 'matched with your bank statements', good: true };
  if (books.differ > 0)
    return { words: `${books.differ} of ${books.compared} payments differ, compared on ${at}`, good: false };
  const open = books.open > 0 ? `, ${books.open} under way` : '';
  return {
    words: `equal the gateway's: ${books.compared === 1 ? '1 payment' : `${books.compared} payments`}, no difference${open}, compared on ${at}`,
    good: true,
  };
}

/** A connected gateway: its keys, its webhook, its books, and how it is offered at checkout. */
export function GatewayCard(props: Props) {
  const {
    id,
    gateway,
    label,
    mode,
    account,
    checked,
    heard,
    webhookError,
    isRegistered,
    address,
    books,
    actions,
  } = props;
  const router = useRouter();
  const waits = address !== null && !heard && isRegistered;
  useEffect(() => {
    if (!waits) return;
    const timer = setInterval(() => router.refresh(), 1500);
    return () => clearInterval(timer);
  }, [waits, router]);
  const lines: { name: string; words: string; good: boolean }[] = [
    ...(checked ? [{ name: 'Keys', words: `valid, checked ${checked}`, good: true }] : []),
    ...(address === null
      ? []
      : heard
        ? [{ name: 'Webhook', words: `heard on ${heard}`, good: true }]
        : webhookError
          ? [{ name: 'Webhook', words: `could not be registered: ${webhookError}`, good: false }]
          : [{ name: 'Webhook', words: 'registered; waiting for the first signed message', good: false }]),
    { name: 'Books', ...booksWords(books, props.compared) },
    ...(props.lastError ? [{ name: 'Last error', words: props.lastError, good: false }] : []),
  ];
  return (
    <section className="rounded-card border border-line bg-surface p-5" aria-label={`${gateway}: ${label}`}>
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h2 className="text-xl">{gateway}</h2>
        <span className="font-semibold text-brass">{mode} mode</span>
        <code className="text-sm break-all text-muted">{account}</code>
      </div>
      <p className="mt-1 text-[0.9375rem] text-muted">{props.carries}</p>
      <dl className="figures mt-3">
        {lines.map((line) => (
          <div key={line.name} className="flex gap-4 border-t border-line py-2">
            <dt className="w-24 flex-none font-semibold">{line.name}</dt>
            <dd className={line.good ? 'text-open' : 'text-metered'}>{line.words}</dd>
          </div>
        ))}
      </dl>
      {books?.ok && 'differences' in books && books.differ > 0 && (
        <ul className="mt-2 text-[0.9375rem]">
          {books.differences.map((d) => (
            <li key={d.key}>
              {d.key}: here {d.ours}; there {d.theirs}
            </li>
          ))}
          {books.differ > books.differences.length && (
            <li>and {books.differ - books.differences.length} more</li>
          )}
        </ul>
      )}
      {actions && (
        <>
          <ActionForm
            key={`${label}:${String(props.atCheckout)}`}
            action={actions.arrange}
            label={`${label} at checkout`}
            className="mt-4 grid gap-3 border-t border-line pt-4 sm:grid-cols-[14rem_1fr_auto] sm:items-end"
          >
            <input type="hidden" name="account" value={id} />
            <TextField name="label" label="Name at checkout" defaultValue={label} />
            <CheckField
              name="atCheckout"
              value="yes"
              label="Offered at checkout"
              defaultChecked={props.atCheckout}
            />
            <div className="flex flex-wrap gap-2">
              <SubmitButton busy="Saving…" look="quiet" name="move" value="stay">
                Save
              </SubmitButton>
              <SubmitButton busy="Moving…" look="quiet" name="move" value="up">
                Move up
              </SubmitButton>
            </div>
            <div className="sm:col-span-3">
              <FormMessage />
            </div>
          </ActionForm>
          {address !== null && (
            <div className="mt-3 grid gap-3">
              <div className="flex flex-wrap items-start gap-2">
                <ActionForm action={actions.check} className="grid gap-2">
                  <input type="hidden" name="account" value={id} />
                  <SubmitButton busy="Asking…" look="quiet" className="w-fit">
                    Check keys
                  </SubmitButton>
                  <FormMessage />
                </ActionForm>
                <ActionForm action={actions.compare} className="grid gap-2">
                  <input type="hidden" name="account" value={id} />
                  <SubmitButton busy="Comparing…" look="quiet" className="w-fit">
                    Compare books
                  </SubmitButton>
                  <FormMessage />
                </ActionForm>
                <ActionForm action={actions.register} className="grid gap-2">
                  <input type="hidden" name="account" value={id} />
                  <SubmitButton busy="Registering…" look="quiet" className="w-fit">
                    {heard ? 'Register the webhook again' : 'Register the webhook'}
                  </SubmitButton>
                  <FormMessage />
                </ActionForm>
              </div>
              <details open={webhookError !== null || undefined}>
                <summary className="w-fit list-none text-spruce underline">
                  Register the webhook by hand
                </summary>
                <ol className="mt-2 grid list-decimal gap-2 pl-5">
                  <li>
                    Copy this address: <CopyText text={address} label="Copy the address" copied="Copied" />
                  </li>
                  <li>
                    On the page of {gateway}, under “Addresses for messages”, choose {mode} mode, paste it and
                    add it.
                  </li>
                  <li>
                    Copy the signing secret beside it, and paste it here:
                    <ActionForm action={actions.keepSecret} className="mt-2 grid gap-2" emptyWhenDone>
                      <input type="hidden" name="account" value={id} />
                      <TextField
                        name="secret"
                        label="Signing secret"
                        placeholder="whsec_…"
                        autoComplete="off"
                      />
                      <PasswordAgain />
                      <SubmitButton busy="Saving…" look="quiet" className="w-fit">
                        Save and send a test message
                      </SubmitButton>
                      <FormMessage />
                    </ActionForm>
                  </li>
                </ol>
              </details>
            </div>
          )}
          <Disconnect id={id} gateway={gateway} inUse={props.inUse} action={actions.disconnect} />
        </>
      )}
    </section>
  );
}

type DisconnectProps = { id: string; gateway: string; inUse: Props['inUse']; action: FormAction };

/** What runs on a gateway is said before it is disconnected. */
function Disconnect({ id, gateway, inUse, action }: DisconnectProps) {
  const runs = inUse.subscriptions + inUse.payments + inUse.refunds > 0;
  return (
    <details className="mt-4 border-t border-line pt-3">
      <summary className="w-fit list-none text-closed underline">Disconnect {gateway}…</summary>
      {runs ? (
        <p className="figures mt-2">
          {inUse.subscriptions === 1 ? '1 subscription is' : `${inUse.subscriptions} subscriptions are`}{' '}
          charged through it
          {inUse.payments + inUse.refunds > 0 &&
            `, and ${inUse.payments + inUse.refunds} payments or refunds are in progress`}
          . Untick “Offered at checkout” now; disconnect it when members have changed their payment method or
          ended.
        </p>
      ) : (
        <ActionForm action={action} label={`Disconnect ${gateway}`} className="mt-2 grid max-w-md gap-3">
          <input type="hidden" name="account" value={id} />
          <p>
            Nothing runs on it. Its keys are deleted here; what was paid through it stays in the books. You
            can connect it again.
          </p>
          <PasswordAgain />
          <SubmitButton busy="Disconnecting…" look="bad" className="w-fit">
            Disconnect
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
    </details>
  );
}
