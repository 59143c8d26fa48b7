'use client';

import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CopyText } from '@/kit/copy-text';
import { CheckField, TextField } from '@/kit/field';
import { PasswordAgain } from '@/people/ui/password-again';
import { desk } from '@/words/desk';

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
  /** The first of its mode at checkout. */
  isFirst: boolean;
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
  const when = at ?? '';
  if (!books) return { words: desk('desk-money.not-compared-yet-the-site'), good: false };
  if (!books.ok)
    return { words: desk('desk-money.books-not-compared', { when, reason: books.reason }), good: false };
  if ('none' in books) return { words: desk('desk-money.matched-with-your-bank-statements'), good: true };
  const { differ, compared, open } = books;
  if (differ > 0) return { words: desk('desk-money.books-differ', { differ, compared, when }), good: false };
  return { words: desk('desk-money.books-equal', { compared, open, when }), good: true };
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
  // Just connected: its first message and the first comparison of its books arrive within seconds.
  const waits = address !== null && isRegistered && (!heard || books === null);
  useEffect(() => {
    if (!waits) return;
    const timer = setInterval(() => router.refresh(), 1500);
    const enough = setTimeout(() => clearInterval(timer), 60_000);
    return () => {
      clearInterval(timer);
      clearTimeout(enough);
    };
  }, [waits, router]);
  const lines: { name: string; words: string; good: boolean }[] = [
    ...(checked
      ? [{ name: desk('desk.keys'), words: desk('desk-money.valid-checked', { checked }), good: true }]
      : []),
    ...(address === null
      ? []
      : heard
        ? [{ name: desk('desk-money.webhook'), words: desk('desk-money.heard-on', { heard }), good: true }]
        : webhookError
          ? [
              {
                name: desk('desk-money.webhook'),
                words: desk('desk-money.could-not-be-registered', { webhookError }),
                good: false,
              },
            ]
          : [
              {
                name: desk('desk-money.webhook'),
                words: desk('desk-money.registered-waiting-for-the-first'),
                good: false,
              },
            ]),
    { name: desk('desk-money.books'), ...booksWords(books, props.compared) },
    ...(props.lastError
      ? [{ name: desk('desk-money.last-error'), words: props.lastError, good: false }]
      : []),
  ];
  return (
    <section className="rounded-card border border-line bg-surface p-5" aria-label={`${gateway}: ${label}`}>
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h2 className="text-xl">{gateway}</h2>
        <span className="font-semibold text-brass">{desk('desk-money.mode-inline', { mode })}</span>
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
              {desk('desk-money.here-there', { key: d.key, ours: d.ours, theirs: d.theirs })}
            </li>
          ))}
          {books.differ > books.differences.length && (
            <li>{desk('desk-money.and-more', { differ: books.differ - books.differences.length })}</li>
          )}
        </ul>
      )}
      {actions && (
        <>
          <ActionForm
            key={`${label}:${String(props.atCheckout)}`}
            action={actions.arrange}
            label={desk('desk-money.at-checkout', { label })}
            className="mt-4 grid gap-3 border-t border-line pt-4 sm:grid-cols-[14rem_1fr_auto] sm:items-end"
          >
            <input type="hidden" name="account" value={id} />
            <TextField name="label" label={desk('desk-money.name-at-checkout')} defaultValue={label} />
            <CheckField
              name="atCheckout"
              value="yes"
              label={desk('desk-money.offered-at-checkout')}
              defaultChecked={props.atCheckout}
            />
            <div className="flex flex-wrap gap-2">
              <SubmitButton busy={desk('desk.saving')} look="quiet" name="move" value="stay">
                {desk('desk.save')}
              </SubmitButton>
              {!props.isFirst && (
                <SubmitButton busy={desk('desk.moving')} look="quiet" name="move" value="up">
                  {desk('desk-money.move-up')}
                </SubmitButton>
              )}
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
                  <SubmitButton busy={desk('desk.asking')} look="quiet" className="w-fit">
                    {desk('desk-money.check-keys')}
                  </SubmitButton>
                  <FormMessage />
                </ActionForm>
                <ActionForm action={actions.compare} className="grid gap-2">
                  <input type="hidden" name="account" value={id} />
                  <SubmitButton busy={desk('desk-money.comparing')} look="quiet" className="w-fit">
                    {desk('desk-money.compare-books')}
                  </SubmitButton>
                  <FormMessage />
                </ActionForm>
                <ActionForm action={actions.register} className="grid gap-2">
                  <input type="hidden" name="account" value={id} />
                  <SubmitButton busy={desk('desk-money.registering')} look="quiet" className="w-fit">
                    {heard
                      ? desk('desk-money.register-the-webhook-again')
                      : desk('desk-money.register-the-webhook')}
                  </SubmitButton>
                  <FormMessage />
                </ActionForm>
              </div>
              <details open={webhookError !== null || undefined}>
                <summary className="w-fit list-none text-spruce underline">
                  {desk('desk-money.register-the-webhook-by-hand')}
                </summary>
                <ol className="mt-2 grid list-decimal gap-2 pl-5">
                  <li>
                    {desk('desk-money.copy-this-address')}{' '}
                    <CopyText
                      text={address}
                      label={desk('desk-money.copy-the-address')}
                      copied={desk('desk-money.copied')}
                    />
                  </li>
                  <li>{desk('desk-money.on-the-page-of-under', { gateway, mode })}</li>
                  <li>
                    {desk('desk-money.copy-the-signing-secret-beside')}
                    <ActionForm action={actions.keepSecret} className="mt-2 grid gap-2" emptyWhenDone>
                      <input type="hidden" name="account" value={id} />
                      <TextField
                        name="secret"
                        label={desk('desk-money.signing-secret')}
                        placeholder="whsec_…"
                        autoComplete="off"
                      />
                      <PasswordAgain />
                      <SubmitButton busy={desk('desk.saving')} look="quiet" className="w-fit">
                        {desk('desk-money.save-and-send-a-test-message')}
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
      <summary className="w-fit list-none text-closed underline">
        {desk('desk-money.disconnect', { gateway })}
      </summary>
      {runs ? (
        <p className="figures mt-2">
          {desk('desk-money.still-in-use', {
            subscriptions: inUse.subscriptions,
            underway: inUse.payments + inUse.refunds,
          })}
        </p>
      ) : (
        <ActionForm
          action={action}
          label={desk('desk-money.disconnect-label', { gateway })}
          className="mt-2 grid max-w-md gap-3"
        >
          <input type="hidden" name="account" value={id} />
          <p>{desk('desk-money.nothing-runs-on-it-its')}</p>
          <PasswordAgain />
          <SubmitButton busy={desk('desk-money.disconnecting')} look="bad" className="w-fit">
            {desk('desk-money.disconnect-sentence')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
    </details>
  );
}
