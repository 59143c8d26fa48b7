'use client';

import {
  startTransition,
  useActionState,
  useEffect,
  useRef,
  useState,
  type ReactNode,
  type SubmitEvent,
} from 'react';
import { FormFrame, FormMessage, SubmitButton, type FormAction, type FormState } from '../kit/action-form';
import { CardFrame, type CardFrameHandle } from './card-frame';

export type Frame = { url: string; origin: string; gateway: string };

type Props = {
  action: FormAction;
  label: string;
  /** Null where nothing is to be paid. */
  frame: Frame | null;
  /** A card that is known already and can be charged again. */
  keptCard: string | null;
  button: string;
  busy?: string;
  /** What it costs today and next: in view where the button is pressed. */
  cost?: string;
  children?: ReactNode;
};

const NOTHING: FormState = { problems: {} };

/** A form that pays: its own fields, and the gateway's card form. The card's number never enters this page. */
export function PaidForm({ action, label, frame, keptCard, button, busy, cost, children }: Props) {
  const [state, send, sending] = useActionState(action, NOTHING);
  const [asking, setAsking] = useState(false);
  const [cardProblem, setCardProblem] = useState<string | null>(null);
  const [keeps, setKeeps] = useState(keptCard !== null);
  const card = useRef<CardFrameHandle>(null);
  const form = useRef<HTMLFormElement>(null);
  const pending = asking || sending;
  const problem = cardProblem ?? state.problems.card;

  useEffect(() => {
    const find = (what: string): HTMLElement | null | undefined =>
      form.current?.querySelector<HTMLElement>(what);
    (find('[aria-invalid="true"]') ?? find('[data-form-problem]'))?.focus();
  }, [state]);

  const submit = async (event: SubmitEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    if (pending) return;
    const data = new FormData(event.currentTarget);
    setCardProblem(null);
    if (frame && !keeps && card.current) {
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
      className="grid content-start gap-6"
      aria-label={label}
    >
      <FormFrame state={state} pending={pending}>
        {Object.keys(state.problems).some((field) => field !== 'card') && <FormMessage />}
        {children}
        {frame && (
          <fieldset>
            <legend className="mb-3 font-display text-xl font-bold">Card</legend>
            {keptCard && (
              <div className="mb-3 grid gap-2">
                <CardChoice name="keepCard" value="yes" isOn={keeps} choose={() => setKeeps(true)}>
                  The {keptCard}
                </CardChoice>
                <CardChoice name="keepCard" value="no" isOn={!keeps} choose={() => setKeeps(false)}>
                  Another card
                </CardChoice>
              </div>
            )}
            {!keeps && (
              <CardFrame
                ref={card}
                url={frame.url}
                origin={frame.origin}
                gateway={frame.gateway}
                onEnter={() => form.current?.requestSubmit()}
              />
            )}
            {problem && (
              <p
                role="alert"
                className="mt-2 border-l-4 border-closed bg-closed-wash px-3 py-2 font-medium text-closed"
              >
                {problem}
              </p>
            )}
          </fieldset>
        )}
        <div className="grid gap-3">
          {cost && <p className="figures font-semibold">{cost}</p>}
          <SubmitButton
            busy={busy ?? (frame ? 'Talking to the card service…' : 'Joining…')}
            className="min-h-12 text-base sm:w-fit sm:px-8"
          >
            {button}
          </SubmitButton>
        </div>
      </FormFrame>
    </form>
  );
}

function CardChoice({
  name,
  value,
  isOn,
  choose,
  children,
}: {
  name: string;
  value: string;
  isOn: boolean;
  choose: () => void;
  children: ReactNode;
}) {
  return (
    <label className="flex items-center gap-2.5">
      <input type="radio" name={name} value={value} checked={isOn} onChange={choose} className="size-4.5" />
      {children}
    </label>
  );
}
