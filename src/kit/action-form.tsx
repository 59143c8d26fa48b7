'use client';

import {
  createContext,
  lazy,
  Suspense,
  startTransition,
  use,
  useActionState,
  useEffect,
  useRef,
  useState,
  type SubmitEvent as ReactSubmitEvent,
  type ReactNode,
} from 'react';
import { unstable_rethrow } from 'next/navigation';
import { Button, type Look } from './button';
import type { Conflict } from './conflict';
import { useChanged, useSignedIn, useToast } from './surroundings';

/** What a form's action answers: a sentence beside each field that has a problem, or a word that it was done. */
export type FormState = {
  problems: Record<string, string>;
  message?: string;
  /** The session has ended: they can sign in again here, and nothing typed is lost. */
  isSignedOut?: boolean;
  conflict?: Conflict;
  /** What the form's `undo` is sent to undo what was done. */
  undo?: Record<string, string>;
};
/** What an editor holds beside the fields of its form, by name. */
export type Drafts = Record<string, unknown>;
export type FormAction = (state: FormState, form: FormData, drafts?: Drafts) => Promise<FormState>;

/** What every form can say; the frame around the pages gives it, in its language. */
export type FormWords = { lost: string; checkOne: string; checkMany: string };
const WordsContext = createContext<FormWords>({ lost: '', checkOne: '', checkMany: '' });
export const FormWordsProvider = WordsContext.Provider;

type Sent = { form: FormData; drafts?: Drafts };
const NOTHING: FormState = { problems: {} };
/** Loaded where a session has ended, or someone else has saved, and nowhere else. */
const SignInAgain = lazy(() => import('./sign-in-again'));
const ConflictPanel = lazy(() => import('./conflict'));

const FormContext = createContext<{ state: FormState; pending: boolean }>({ state: NOTHING, pending: false });

/**
 * Sends a form to its action. Where the answer does not come (the connection was cut, the site failed), what was typed
 * stays, and the form says what is known. `plain` is what the browser itself sends while there is no script.
 */
export function useFormAction<State extends FormState>(
  action: (state: State, form: FormData, drafts?: Drafts) => Promise<State>,
  nothing: State,
  lost?: string,
) {
  const words = use(WordsContext);
  const [plainState, plain] = useActionState(action, nothing as Awaited<State>);
  const [sent, send, pending] = useActionState(
    async (state: State, { form, drafts }: Sent): Promise<State> => {
      try {
        return await action(state, form, drafts);
      } catch (error) {
        // Leading on to another page comes as an error too.
        unstable_rethrow(error);
        return { ...nothing, problems: { '': lost ?? words.lost } };
      }
    },
    nothing as Awaited<State>,
  );
  return { state: sent === nothing ? plainState : sent, plain, send, pending };
}

type Drafted = { values: Map<string, unknown>; changed: () => void };
const DraftContext = createContext<Drafted>({ values: new Map(), changed: () => {} });

/**
 * What an editor holds, sent with the surrounding form as an argument of its action. For forms that need script anyway:
 * without it, only fields are sent, and what was drafted stays as it was.
 */
export function Draft({ name, value }: { name: string; value: unknown }) {
  const { values, changed } = use(DraftContext);
  const first = useRef(value);
  useEffect(() => {
    values.set(name, value);
    if (value !== first.current) changed();
    return () => void values.delete(name);
  }, [values, changed, name, value]);
  return null;
}

/** The problem of a field of the surrounding form, if it has one. */
export function useProblem(name: string): string | undefined {
  return use(FormContext).state.problems[name];
}
export const useFormPending = (): boolean => use(FormContext).pending;

type Props = {
  action: FormAction;
  children: ReactNode;
  className?: string;
  label?: string;
  id?: string;
  emptyWhenDone?: boolean;
  /** Takes back what was done, where the action's answer says how. */
  undo?: FormAction;
};

/**
 * A form whose action answers with problems beside their fields. What was typed stays; the first field with a
 * problem gets the focus. Before the page is interactive it works as a plain form.
 */
export function ActionForm({ action, children, className, label, id, emptyWhenDone, undo }: Props) {
  const { state, plain, send, pending } = useFormAction(action, NOTHING);
  const form = useRef<HTMLFormElement>(null);
  const [tell, showToast, signedIn] = [useChanged(), useToast(), useSignedIn()];
  const [drafted] = useState((): Drafted => ({ values: new Map(), changed: () => tell(true) }));
  const pressed = useRef<HTMLElement | null>(null);
  const [asked, setAsked] = useState<FormState>();

  useEffect(() => {
    const find = (what: string): HTMLElement | null | undefined =>
      form.current?.querySelector<HTMLElement>(what);
    for (const wrong of form.current?.querySelectorAll('details:not([open]) [aria-invalid="true"]') ?? [])
      wrong.closest('details')?.setAttribute('open', '');
    (find('[aria-invalid="true"]') ?? find('[data-form-problem]'))?.focus();
    if (emptyWhenDone && state.message) form.current?.reset();
    const { message, undo: fields } = state;
    if (message && fields && undo) showToast(message, () => undone(undo, fields));
    // What was refused is as unsaved as before.
    if (state.conflict || Object.keys(state.problems).length > 0) tell(true);
    // oxlint-disable-next-line react/exhaustive-deps -- told once for each answer
  }, [state, emptyWhenDone]);

  /** Sends what the form holds now, by the button that was pressed last; over what someone else has saved, if so. */
  const sendForm = (over?: Conflict): void => {
    if (!form.current || pending) return;
    const data = new FormData(form.current, pressed.current);
    if (over) data.set('over', String(over.version));
    const { values } = drafted;
    tell(false);
    startTransition(() =>
      send({ form: data, drafts: values.size > 0 ? Object.fromEntries(values) : undefined }),
    );
  };
  const submit = (event: ReactSubmitEvent<HTMLFormElement>): void => {
    // Sending by hand keeps React from emptying the fields afterwards.
    event.preventDefault();
    pressed.current = event.nativeEvent.submitter;
    sendForm();
  };

  const again = signedIn && state.isSignedOut && asked !== state;
  return (
    <>
      {again && (
        <Suspense>
          <SignInAgain
            {...signedIn}
            onClose={() => setAsked(state)}
            onDone={() => {
              setAsked(state);
              sendForm();
            }}
          />
        </Suspense>
      )}
      <form
        ref={form}
        id={id}
        action={plain}
        onSubmit={submit}
        onInput={() => tell(true)}
        className={className}
        aria-label={label}
        noValidate
      >
        <DraftContext value={drafted}>
          <FormFrame state={state} pending={pending}>
            {state.conflict && (
              <Suspense>
                <ConflictPanel
                  conflict={state.conflict}
                  onMine={() => sendForm(state.conflict)}
                  onTheirs={() => {
                    tell(false);
                    location.reload();
                  }}
                />
              </Suspense>
            )}
            {children}
          </FormFrame>
        </DraftContext>
      </form>
    </>
  );
}

/** Sends what takes a deed back. The answer is what to say. */
export async function undone(undo: FormAction, fields: Record<string, string>): Promise<string> {
  const form = new FormData();
  for (const [name, value] of Object.entries(fields)) form.set(name, value);
  const { problems, message } = await undo(NOTHING, form);
  return Object.values(problems)[0] ?? message ?? '';
}

/** Tells the fields inside what the form's action answered; for forms that send themselves. */
export function FormFrame({
  state,
  pending,
  children,
}: {
  state: FormState;
  pending: boolean;
  children: ReactNode;
}) {
  return <FormContext value={{ state, pending }}>{children}</FormContext>;
}

/** What is wrong with the whole form, or the word that it was done. */
export function FormMessage({ onNight = false }: { onNight?: boolean }) {
  const { state } = use(FormContext);
  const words = use(WordsContext);
  const problem = state.problems[''];
  const others = Object.keys(state.problems).length;
  if (problem || others > 0) {
    return (
      <p
        role="alert"
        tabIndex={-1}
        data-form-problem
        className={
          onNight
            ? 'rounded-md bg-closed-wash px-3 py-2 font-medium text-closed'
            : 'rounded-md border-l-4 border-closed bg-closed-wash px-3 py-2 font-medium text-closed'
        }
      >
        {problem ?? (others === 1 ? words.checkOne : words.checkMany)}
      </p>
    );
  }
  return (
    <p role="status" className={state.message ? 'font-medium text-open' : 'sr-only'}>
      {state.message}
    </p>
  );
}

/** What is wrong with a field that the form does not show. */
export function ProblemOf({ name }: { name: string }) {
  const problem = useProblem(name);
  return problem ? <p className="font-medium text-closed">{problem}</p> : null;
}

/** Sends the form; says so while it is on its way, and cannot be pressed twice. */
export function SubmitButton({
  children,
  busy,
  look,
  className,
  name,
  value,
}: {
  children: ReactNode;
  busy: string;
  look?: Look;
  className?: string;
  name?: string;
  value?: string;
}) {
  const pending = useFormPending();
  return (
    <Button type="submit" look={look} className={className} disabled={pending} name={name} value={value}>
      {pending ? busy : children}
    </Button>
  );
}
