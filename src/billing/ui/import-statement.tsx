'use client';

import { useRouter } from 'next/navigation';
import { useState, type SubmitEvent } from 'react';
import { FormFrame, FormMessage, SubmitButton, type FormState } from '@/kit/action-form';
import { SelectField, TextArea } from '@/kit/field';
import { sendFile } from '@/kit/send-file';
import { desk } from '@/words/desk';

type Line = { line: number; state: string; words: string };
type State = FormState & { lines?: Line[]; wasDryRun?: boolean };
type Props = { accounts: { id: string; label: string }[] };

const LOOKS: Record<string, string> = {
  matched: 'text-open',
  unmatched: 'text-metered',
  unreadable: 'text-closed',
};

/** Takes a bank statement, and says line by line what became of it; it can be tried first. */
export function ImportStatement({ accounts }: Props) {
  const [state, setState] = useState<State>({ problems: {} });
  const [pending, setPending] = useState(false);
  const router = useRouter();
  const send = async (data: FormData): Promise<void> => {
    const chosen = data.get('file');
    const isFile = chosen instanceof File && chosen.size > 0;
    const wasDryRun = data.get('dryRun') === 'yes';
    const read = (name: string): string => {
      const value = data.get(name);
      return typeof value === 'string' ? value : '';
    };
    const query = new URLSearchParams({ account: read('account'), try: wasDryRun ? 'yes' : '' });
    setPending(true);
    const sent = await sendFile<Line[]>(
      `/desk/uploads/statement?${query.toString()}`,
      isFile ? chosen : read('csv'),
    );
    setPending(false);
    if (!sent.ok) return setState({ problems: sent.problems });
    setState({
      problems: {},
      lines: sent.value,
      wasDryRun,
      message: wasDryRun ? desk('desk-money.nothing-was-changed-yet') : desk('desk-money.imported'),
    });
    if (!wasDryRun) router.refresh();
  };
  const submit = (event: SubmitEvent<HTMLFormElement>): void => {
    event.preventDefault();
    if (!pending) void send(new FormData(event.currentTarget, event.nativeEvent.submitter));
  };
  const file = state.problems.csv;
  return (
    <section
      className="rounded-card border border-line bg-surface p-5"
      aria-label={desk('desk-money.import-a-bank-statement')}
    >
      <h2 className="text-xl">{desk('desk-money.import-a-bank-statement')}</h2>
      <p className="mt-1 text-muted">{desk('desk-money.csv-with-a-first-line')}</p>
      <form onSubmit={submit} className="mt-4 grid gap-4" noValidate>
        <FormFrame state={state} pending={pending}>
          <FormMessage />
          {accounts.length === 1 ? (
            <input type="hidden" name="account" value={accounts[0]?.id} />
          ) : (
            <SelectField name="account" label={desk('desk.account')}>
              {accounts.map((account) => (
                <option key={account.id} value={account.id}>
                  {account.label}
                </option>
              ))}
            </SelectField>
          )}
          <div>
            <label htmlFor="statement" className="mb-1 block font-semibold">
              {desk('desk-money.file')}
            </label>
            <input
              id="statement"
              name="file"
              type="file"
              accept=".csv,text/csv"
              className="w-full file:mr-3 file:rounded-lg file:border file:border-edge/60 file:bg-surface file:px-3 file:py-1.5 file:font-semibold"
            />
            {file && <p className="mt-1 text-[0.9375rem] font-medium text-closed">{file}</p>}
          </div>
          <TextArea name="csv" label={desk('desk-money.or-paste-it')} rows={4} spellCheck={false} />
          <div className="flex flex-wrap gap-2">
            <SubmitButton busy={desk('desk-money.reading')} look="quiet" name="dryRun" value="yes">
              {desk('desk-money.try-it-first')}
            </SubmitButton>
            <SubmitButton busy={desk('desk-money.importing')}>{desk('desk-money.import')}</SubmitButton>
          </div>
        </FormFrame>
      </form>
      {state.lines && (
        <div className="mt-4" role="status">
          <h3 className="text-lg">
            {state.wasDryRun
              ? desk('desk-money.this-is-what-would-be-done')
              : desk('desk-money.this-is-what-was-done')}
          </h3>
          <ul className="figures mt-1 text-[0.9375rem]">
            {state.lines.map((line) => (
              <li key={line.line} className="flex gap-3 border-t border-line py-1">
                <span className="w-14 flex-none text-muted">
                  {desk('desk-money.line', { line: line.line })}
                </span>
                <span className={LOOKS[line.state] ?? 'text-muted'}>
                  <b className="font-semibold">{line.state}</b>: {line.words}
                </span>
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}
