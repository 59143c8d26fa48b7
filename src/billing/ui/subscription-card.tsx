'use client';

import Link from 'next/link';
import { useState, type ReactNode } from 'react';
import type { Deed } from '@/core/billing/deeds';
import type { KeyCut } from '@/core/key-cut';
import { KeyGlyph } from '@/kit/key-cut';
import { ActionForm, FormMessage, SubmitButton, useProblem, type FormAction } from '@/kit/action-form';
import { Button, buttonClass, LinkButton } from '@/kit/button';
import { LifeMark } from '@/kit/state-mark';
import type { OfferId } from '@/core/ids';

type Props = {
  id: string;
  name: string;
  keyCut: KeyCut | null;
  state: string;
  sentence: string;
  methodLabel: string | null;
  next: { date: string; amount: string } | null;
  until: string | null;
  ended: string | null;
  /** Nothing more is charged, and it is held for good; whether it was ever paid for. */
  isForGood: boolean;
  isPaid: boolean;
  ways?: {
    renew: { offerId: OfferId } | null;
    switches: { offerId: OfferId; tierName: string; price: string }[];
  };
  /** The offer under which it goes on from a day, where it does. */
  movesTo: { isOwn: boolean; name: string; sentence: string; date: string } | null;
  pauses: boolean;
  isDisputed: boolean;
  /** What would not be refused now. */
  deeds: Deed[];
  /** Its wallet has not been told yes to what it costs next. */
  needsApproval: boolean;
  transfer: { amount: string; reference: string; payee: string; account: string } | null;
  actions: Record<'undoSwitch' | 'cancel' | 'undo' | 'pause' | 'resume' | 'pay', FormAction>;
};

function stateSentence({ state, next, until, ended, isForGood, isPaid, pauses, isDisputed }: Props): string {
  if (isDisputed)
    return 'Your bank was asked to take a payment back. Until that is decided nothing is charged, and nothing is open.';
  if (isForGood && !next)
    return isPaid ? 'Paid for good. Nothing more is charged.' : 'Free. Nothing is charged.';
  if (state === 'ended') return `Ended on ${ended}.`;
  if (state === 'cancelling')
    return `Cancelled: it stays open to you until ${until}, and nothing more is charged.`;
  if (state === 'paused') return 'Paused. Nothing is charged and you have no access until you resume it.';
  if (pauses) return `It pauses on ${until}. Until then it stays open to you.`;
  if (state === 'overdue' && next)
    return `The last payment did not go through. ${next.amount} is tried again on ${next.date}; until then everything stays open to you.`;
  if (next) return `Next charge: ${next.amount} on ${next.date}.`;
  return until ? `Open to you until ${until}. Nothing more is charged.` : 'Free. Nothing is charged.';
}

/** One subscription in the member's account: what it is, what it costs next, and the way out of it. */
export function SubscriptionCard(props: Props) {
  const {
    id,
    next,
    name,
    keyCut,
    state,
    sentence,
    methodLabel,
    until,
    isForGood,
    ways,
    movesTo,
    pauses,
    deeds,
    needsApproval,
    transfer,
    actions,
  } = props;
  const [asking, setAsking] = useState(false);
  const canCancel = deeds.includes('cancel');
  const isCharged = next !== null || state === 'paused' || pauses;
  return (
    <section aria-label={name} className="rounded-xl border border-line bg-surface p-5">
      <div className="flex flex-wrap items-center gap-3">
        {keyCut && <KeyGlyph cut={keyCut} size={22} />}
        <h3 className="text-xl">{name}</h3>
        <LifeMark state={isForGood && state === 'ended' ? 'active' : state} />
      </div>
      <p className="figures mt-2 text-lg">{stateSentence(props)}</p>
      <p className="text-muted">
        {sentence} {methodLabel && `Paid by ${methodLabel}.`}
      </p>
      {movesTo && (
        <ActionForm
          action={actions.undoSwitch}
          className="mt-3 grid gap-2 rounded-md bg-later-wash px-4 py-3 text-later"
        >
          <input type="hidden" name="subscription" value={id} />
          <p>
            On {movesTo.date} it becomes {movesTo.name}: {movesTo.sentence}
          </p>
          {deeds.includes('take-back') && (
            <SubmitButton busy="Undoing it…" look="quiet" className="w-fit">
              Undo the switch
            </SubmitButton>
          )}
          <FormMessage />
        </ActionForm>
      )}
      {needsApproval && !transfer && (
        <div className="figures mt-3 grid gap-2 rounded-md bg-metered-wash px-4 py-3 text-metered">
          <p>
            {methodLabel ?? 'Your wallet'} bills only what you told it yes to. Approve what comes next
            {next ? `, before ${next.date}` : ''}.
          </p>
          <LinkButton href={`/account/pay/${id}`} look="quiet" className="w-fit">
            Approve it, or pay in another way
          </LinkButton>
        </div>
      )}
      {transfer && (
        <p className="figures mt-3 rounded-md bg-metered-wash px-4 py-3 text-metered">
          Please transfer {transfer.amount} to {transfer.payee}, {transfer.account}, with the reference{' '}
          <b className="font-mono">{transfer.reference}</b>.{' '}
          <Link href={`/account/to-pay/${id}`} className="underline">
            The invoice, to print or keep
          </Link>
        </p>
      )}
      {deeds.includes('pay-now') && !needsApproval && (
        <OneButton id={id} action={actions.pay} busy="Talking to the card service…" look="main">
          Pay {next?.amount} now
        </OneButton>
      )}
      {deeds.includes('resume') && (
        <OneButton id={id} action={actions.resume} busy="One moment…" look="main">
          {pauses ? 'Undo the pause' : 'Resume, and pay for the next period'}
        </OneButton>
      )}
      <div className="mt-4 flex flex-wrap items-start gap-3">
        {isCharged && state !== 'cancelling' && state !== 'ended' && (
          <LinkButton href={`/account/pay/${id}`} look="quiet">
            Change how it is paid
          </LinkButton>
        )}
        {deeds.includes('pause') && (
          <details className="open:basis-full">
            <summary className={buttonClass('quiet', 'cursor-pointer list-none')}>Pause {name}</summary>
            <p className="mt-2">
              From {until}, nothing is charged and you have no access until you resume it.
            </p>
            <OneButton id={id} action={actions.pause} busy="One moment…">
              Pause it from then on
            </OneButton>
          </details>
        )}
        {ways?.renew && <LinkButton href={`/join/${ways.renew.offerId}`}>Renew {name}</LinkButton>}
        {ways && ways.switches.length > 0 && !movesTo && state !== 'cancelling' && (
          <details className="open:basis-full">
            <summary className={buttonClass('quiet', 'cursor-pointer list-none')}>
              Switch to another offer
            </summary>
            <ul className="mt-2 grid gap-2">
              {ways.switches.map((way) => (
                <li key={way.offerId}>
                  <LinkButton href={`/join/${way.offerId}`} look="quiet">
                    {way.tierName}, {way.price}
                  </LinkButton>
                </li>
              ))}
            </ul>
          </details>
        )}
        {state === 'ended' && !isForGood && (
          <LinkButton href="/join" look="quiet">
            Join again
          </LinkButton>
        )}
        {deeds.includes('undo') && (
          <ActionForm action={actions.undo} className="grid gap-3">
            <input type="hidden" name="subscription" value={id} />
            <SubmitButton busy="Undoing it…" look="quiet" className="w-fit">
              Keep it after all
            </SubmitButton>
            <FormMessage />
          </ActionForm>
        )}
        {canCancel && !asking && (
          <Button look="quiet" onClick={() => setAsking(true)}>
            Cancel {name}
          </Button>
        )}
      </div>
      {canCancel && asking && (
        <ActionForm action={actions.cancel} className="mt-4 grid gap-3 rounded-md bg-sunken p-4">
          <input type="hidden" name="subscription" value={id} />
          <p className="font-semibold">
            {until && state !== 'overdue' && state !== 'paused'
              ? `Cancel ${name}? It stays open to you until ${until}.`
              : `Cancel ${name}? It ends at once.`}
          </p>
          <div className="flex flex-wrap gap-3">
            <SubmitButton busy="Cancelling…" look="bad">
              Yes, cancel
            </SubmitButton>
            <Button look="quiet" onClick={() => setAsking(false)}>
              No, keep it
            </Button>
          </div>
          <FormMessage />
        </ActionForm>
      )}
    </section>
  );
}

function OneButton({
  id,
  action,
  busy,
  look = 'quiet',
  children,
}: {
  id: string;
  action: FormAction;
  busy: string;
  look?: 'quiet' | 'main';
  children: ReactNode;
}) {
  return (
    <ActionForm action={action} className="mt-4 grid gap-2">
      <input type="hidden" name="subscription" value={id} />
      <SubmitButton busy={busy} look={look} className="w-fit">
        {children}
      </SubmitButton>
      <FormMessage />
      <CardProblem />
    </ActionForm>
  );
}

/** Why a card was refused, where there is no card's field for it to stand beside. */
function CardProblem() {
  const problem = useProblem('card');
  return problem ? <p className="font-medium text-closed">{problem}</p> : null;
}
