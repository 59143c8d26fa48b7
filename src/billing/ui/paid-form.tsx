'use client';

import { startTransition, useEffect, useRef, useState, type ReactNode, type SubmitEvent } from 'react';
import {
  FormFrame,
  FormMessage,
  SubmitButton,
  useFormAction,
  type FormAction,
  type FormState,
} from '@/kit/action-form';
import { CardFrame, type CardFrameHandle } from './card-frame';
import type { GatewayAccountId } from '@/core/ids';
import type { PayWords, Way } from './pay-words';

type Props = {
  action: FormAction;
  label: string;
  /** How it can be paid; none where nothing is to be paid. */
  ways: Way[];
  /** A card that is known already and can be charged again. */
  keptCard: { accountId: GatewayAccountId; label: string } | null;
  /** The one that was chosen before; the first, where none was. */
  chosen?: string;
  words: PayWords;
  /** What is pressed where there is nothing to pay. */
  button: string;
  /** What it costs today and next: in view where the button is pressed. */
  cost?: string;
  children?: ReactNode;
};

const NOTHING: FormState = { problems: {} };
/** A form that pays: its own fields, and the gateway's card form. The card's number never enters this page. */
export function PaidForm({ action, label, ways, keptCard, chosen, words, button, cost, children }: Props) {
  const { state, plain, send, pending: sending } = useFormAction(action, NOTHING, words.lost);
  const [asking, setAsking] = useState(false);
  const [cardProblem, setCardProblem] = useState<string | null>(null);
  const [wantsKept, setKeeps] = useState(keptCard !== null);
  const [accountId, setAccountId] = useState(
    () =>
      ways.find((one) => one.accountId === chosen)?.accountId ??
      keptCard?.accountId ??
      ways[0]?.accountId ??
      '',
  );
  const way = ways.find((one) => one.accountId === accountId);
  const frame = way?.frame ?? null;
  const said = way && words.byWay[way.accountId];
  const kept = keptCard?.accountId === accountId ? keptCard.label : null;
  const keeps = wantsKept && kept !== null;
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
    // What is missing above the card is said first: the site names it all, and no card is asked for yet.
    const isComplete = event.currentTarget.checkValidity();
    if (frame && !keeps && card.current && isComplete) {
      setAsking(true);
      const answer = await card.current.tokenise();
      setAsking(false);
      if ('problem' in answer) return setCardProblem(answer.problem);
      data.set('cardToken', answer.token);
    }
    startTransition(() => send({ form: data }));
  };

  return (
    <form
      ref={form}
      action={plain}
      onSubmit={(event) => void submit(event)}
      noValidate
      className="grid content-start gap-6"
      aria-label={label}
    >
      <FormFrame state={state} pending={pending}>
        {Object.keys(state.problems).some((field) => field !== 'card') && <FormMessage />}
        {children}
        <input type="hidden" name="accountId" value={accountId} />
        {ways.length > 1 && (
          <fieldset className="grid gap-2">
            <legend className="mb-2 font-display text-xl font-bold">{words.method}</legend>
            {ways.map((one) => (
              <CardChoice
                key={one.accountId}
                name="way"
                value={one.accountId}
                isOn={one.accountId === accountId}
                choose={() => (setAccountId(one.accountId), setCardProblem(null))}
              >
                {one.label}
              </CardChoice>
            ))}
          </fieldset>
        )}
        {said?.hint && <p className="text-muted">{said.hint}</p>}
        {frame && (
          <fieldset>
            <legend className="mb-3 font-display text-xl font-bold">{words.card}</legend>
            {kept && (
              <div className="mb-3 grid gap-2">
                <CardChoice name="keepCard" value="yes" isOn={keeps} choose={() => setKeeps(true)}>
                  {kept}
                </CardChoice>
                <CardChoice name="keepCard" value="no" isOn={!keeps} choose={() => setKeeps(false)}>
                  {words.anotherCard}
                </CardChoice>
              </div>
            )}
            {!keeps && said && (
              <CardFrame
                ref={card}
                url={frame.url}
                origin={frame.origin}
                words={said.frame}
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
            busy={frame ? words.busyCard : words.busy}
            className="min-h-12 text-base sm:w-fit sm:px-8"
          >
            {said?.button ?? button}
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
