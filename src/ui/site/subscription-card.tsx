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
  const { id, name, keyCut, state, sentence, methodLabel, until, isForGood, cancel, undo } = props;
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
