'use client';

import { startTransition, useActionState, useEffect, useRef, useState, type SubmitEvent } from 'react';
import { FormFrame, FormMessage, SubmitButton, type FormAction, type FormState } from '../kit/action-form';
import { TextField } from '../kit/field';
import { CardFrame, type CardFrameHandle } from './card-frame';

type Props = {
  action: FormAction;
  joiningId: string;
  offerId: string;
  versionId: string;
  returnTo: string;
  isSignedIn: boolean;
  frame: { url: string; origin: string; gateway: string } | null;
  button: string;
};

const NOTHING: FormState = { problems: {} };

/** Everything on one page: who joins, and the gateway's card form. The card's number never enters this page. */
export function CheckoutForm({ action, joiningId, isSignedIn, frame, button, ...hidden }: Props) {
  // One id for as long as this page is open: pressing twice, or again after a refused card, is one joining.
  const [id] = useState(joiningId);
  const [state, send, sending] = useActionState(action, NOTHING);
  const [asking, setAsking] = useState(false);
  const [cardProblem, setCardProblem] = useState<string | null>(null);
  const card = useRef<CardFrameHandle>(null);
  const form = useRef<HTMLFormElement>(null);
  const pending = asking || sending;

  useEffect(() => form.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus(), [state]);

  const submit = async (event: SubmitEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    if (pending) return;
    const data = new FormData(event.currentTarget);
    setCardProblem(null);
    if (frame && card.current) {
      setAsking(true);
      const answer = await card.current.tokenise();
      setAsking(false);
      if ('problem' in answer) return setCardProblem(answer.problem);
      data.set('cardToken', answer.token);
    }
    startTransition(() => send(data));
  };

  return (
    <form
      ref={form}
      action={send}
      onSubmit={(event) => void submit(event)}
      noValidate
      className="grid content-start gap-5"
      aria-label="Join"
    >
      <FormFrame state={state} pending={pending}>
        {state.problems[''] && <FormMessage />}
        <input type="hidden" name="joiningId" value={id} />
        {Object.entries(hidden).map(([name, value]) => (
          <input key={name} type="hidden" name={name} value={value} />
        ))}
        {!isSignedIn && (
          <fieldset className="grid gap-5 sm:grid-cols-2">
            <legend className="mb-3 font-display text-xl font-bold">You</legend>
            <TextField name="name" label="Name" autoComplete="name" className="sm:col-span-2" required />
            <TextField name="email" label="E-mail" type="email" autoComplete="email" required />
            <TextField
              name="password"
              label="Password"
              type="password"
              autoComplete="new-password"
              hint="At least 10 characters."
              required
            />
          </fieldset>
        )}
        {frame && (
          <fieldset>
            <legend className="mb-3 font-display text-xl font-bold">Card</legend>
            <CardFrame
              ref={card}
              url={frame.url}
              origin={frame.origin}
              gateway={frame.gateway}
              onEnter={() => form.current?.requestSubmit()}
            />
            {(cardProblem ?? state.problems.card) && (
              <p
                role="alert"
                className="mt-2 border-l-4 border-closed bg-closed-wash px-3 py-2 font-medium text-closed"
              >
                {cardProblem ?? state.problems.card}
              </p>
            )}
          </fieldset>
        )}
        <SubmitButton
          busy={frame ? 'Talking to the card service…' : 'Joining…'}
          className="min-h-12 text-base sm:w-fit sm:px-8"
        >
          {button}
        </SubmitButton>
      </FormFrame>
    </form>
  );
}
