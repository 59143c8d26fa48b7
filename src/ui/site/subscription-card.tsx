'use client';

import { useState } from 'react';
import type { KeyCut } from '@/core/key-cut';
import { KeyGlyph } from '../key-cut';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '../kit/action-form';
import { Button, LinkButton } from '../kit/button';
import { LifeMark } from '../kit/state-mark';

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
  isForGood: boolean;
  ways?: {
    renew: { offerId: string } | null;
    switches: { offerId: string; tierName: string; price: string }[];
  };
  /** The offer under which it goes on from a day, where it does. */
  movesTo: { isOwn: boolean; name: string; sentence: string; date: string } | null;
  undoSwitch: FormAction;
  cancel: FormAction;
  undo: FormAction;
};

function standing({ state, next, until, ended, isForGood }: Props): string {
  if (state === 'ended') return `Ended on ${ended}.`;
  if (state === 'cancelling')
    return `Cancelled: it stays open to you until ${until}, and nothing more is charged.`;
  if (state === 'overdue' && next)
    return `The last payment did not go through. ${next.amount} is tried again on ${next.date}; until then everything stays open to you.`;
  if (next) return `Next charge: ${next.amount} on ${next.date}.`;
  if (isForGood) return 'Yours for good. Nothing more is charged.';
  return until ? `Open to you until ${until}. Nothing more is charged.` : 'Free. Nothing is charged.';
}

/** One subscription in the member's account: what it is, what it costs next, and the way out of it. */
export function SubscriptionCard(props: Props) {
  const {
    id,
    name,
    keyCut,
    state,
    sentence,
    methodLabel,
    until,
    isForGood,
    ways,
    movesTo,
    undoSwitch,
    cancel,
    undo,
  } = props;
  const [asking, setAsking] = useState(false);
  const canCancel = ['trial', 'active', 'overdue'].includes(state) && !isForGood;
  return (
    <section aria-label={name} className="rounded-xl border border-line bg-surface p-5">
      <div className="flex flex-wrap items-center gap-3">
        {keyCut && <KeyGlyph cut={keyCut} size={22} />}
        <h3 className="text-xl">{name}</h3>
        <LifeMark state={state} />
      </div>
      <p className="figures mt-2 text-lg">{standing(props)}</p>
      <p className="text-muted">
        {sentence} {methodLabel && `Paid by ${methodLabel}.`}
      </p>
      {movesTo && (
        <ActionForm
          action={undoSwitch}
          className="mt-3 grid gap-2 rounded-md bg-later-wash px-4 py-3 text-later"
        >
          <input type="hidden" name="subscription" value={id} />
          <p>
            On {movesTo.date} it becomes {movesTo.name}: {movesTo.sentence}
          </p>
          {movesTo.isOwn && (
            <SubmitButton busy="Taking it back…" look="quiet" className="w-fit">
              Take the switch back
            </SubmitButton>
          )}
          <FormMessage />
        </ActionForm>
      )}
      {ways?.renew && (
        <LinkButton href={`/join/${ways.renew.offerId}`} className="mt-4 mr-3">
          Renew {name}
        </LinkButton>
      )}
      {ways && ways.switches.length > 0 && !movesTo && state !== 'cancelling' && (
        <details className="mt-3">
          <summary className="w-fit list-none text-spruce underline">Switch to another offer</summary>
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
      {state === 'ended' && (
        <LinkButton href="/join" look="quiet" className="mt-4">
          Join again
        </LinkButton>
      )}
      {state === 'cancelling' && (
        <ActionForm action={undo} className="mt-4 grid gap-3">
          <input type="hidden" name="subscription" value={id} />
          <SubmitButton busy="Taking it back…" look="quiet" className="w-fit">
            Keep it after all
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
      {canCancel && !asking && (
        <Button look="quiet" className="mt-4" onClick={() => setAsking(true)}>
          Cancel {name}
        </Button>
      )}
      {canCancel && asking && (
        <ActionForm action={cancel} className="mt-4 grid gap-3 rounded-md bg-sunken p-4">
          <input type="hidden" name="subscription" value={id} />
          <p className="font-semibold">
            {until && state !== 'overdue'
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
