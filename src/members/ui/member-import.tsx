'use client';

import clsx from 'clsx';
import { useId, useState } from 'react';
import {
  DATE_FORMS,
  doublesIn,
  guessColumns,
  MEMBER_COLUMNS,
  type ColumnMap,
  type DateForm,
  type MemberColumn,
} from '@/core/people/member-lines';
import { toCsv } from '@/core/csv';
import { Button, buttonClass } from '@/kit/button';
import { inputClass } from '@/kit/input-class';
import { desk } from '@/words/desk';

type Line = { line: number; email: string; is: 'new' | 'changed' | 'same' | 'problem'; words: string };
type Batch = {
  first: number;
  lines: string[][];
  columns: ColumnMap;
  dates: DateForm;
  isPaid: boolean;
  isDry: boolean;
};
type Sent = { ok: true; lines: Line[] } | { ok: false; problem: string };
type Props = { send: (batch: Batch) => Promise<Sent>; linesAtOnce: number };
type File_ = { name: string; head: string[]; lines: string[][] };
type Stage = 'choosing' | 'mapping' | 'checking' | 'checked' | 'bringing' | 'done';

const LOOKS: Record<Line['is'], string> = {
  new: 'bg-open-wash text-open',
  changed: 'bg-metered-wash text-metered',
  same: 'bg-ended-wash text-ended',
  problem: 'bg-closed-wash text-closed',
};
const SORTS = ['new', 'changed', 'same', 'problem'] as const;
/** How many lines with a problem are shown; the report has all. */
const MOST_SHOWN = 100;
const MOST_LINES = 200_000;

/** A CSV file of members: what its columns are, what would become of each line, and only then the members themselves. */
export function MemberImport({ send, linesAtOnce }: Props) {
  const id = useId();
  const [stage, setStage] = useState<Stage>('choosing');
  const [file, setFile] = useState<File_ | null>(null);
  const [columns, setColumns] = useState<ColumnMap>([]);
  const [dates, setDates] = useState<DateForm>('year-first');
  const [isPaid, setPaid] = useState(true);
  const [report, setReport] = useState<Line[]>([]);
  const [share, setShare] = useState(0);
  const [problem, setProblem] = useState('');

  const choose = async (chosen: File): Promise<void> => {
    setProblem('');
    setReport([]);
    const { parse } = await import('csv-parse/browser/esm/sync');
    try {
      const records = parse(await chosen.text(), {
        bom: true,
        delimiter: [',', ';', '\t'],
        relax_column_count: true,
        skip_empty_lines: true,
      });
      const [head = [], ...lines] = records;
      if (lines.length === 0) return setProblem(desk('desk-members.import-empty'));
      if (lines.length > MOST_LINES)
        return setProblem(desk('desk-members.import-too-long', { most: MOST_LINES }));
      setFile({ name: chosen.name, head, lines });
      setColumns(guessColumns(head));
      setStage('mapping');
    } catch {
      setProblem(desk('desk-members.import-unreadable'));
    }
  };

  const run = async (isDry: boolean): Promise<void> => {
    if (!file) return;
    setProblem('');
    setReport([]);
    setShare(0);
    setStage(isDry ? 'checking' : 'bringing');
    const doubles = doublesIn(file.lines, columns, FIRST_LINE);
    const all: Line[] = [];
    for (let at = 0; at < file.lines.length; at += linesAtOnce) {
      const lines = file.lines.slice(at, at + linesAtOnce);
      const kept = lines.map((cells, index) => (doubles[at + index] === null ? cells : []));
      const sent = await send({ first: FIRST_LINE + at, lines: kept, columns, dates, isPaid, isDry }).catch(
        () => ({ ok: false as const, problem: desk('desk-members.import-lost', { line: FIRST_LINE + at }) }),
      );
      if (!sent.ok) {
        setProblem(sent.problem);
        return setStage('mapping');
      }
      for (const [index, line] of sent.lines.entries()) {
        const earlier = doubles[at + index];
        all.push(
          earlier == null
            ? line
            : {
                ...line,
                email: lines[index]?.[columns.indexOf('email')] ?? '',
                words: desk('desk-members.import-double', { line: earlier }),
              },
        );
      }
      setReport([...all]);
      setShare((at + lines.length) / file.lines.length);
    }
    setStage(isDry ? 'checked' : 'done');
  };

  const isBusy = stage === 'checking' || stage === 'bringing';
  const counts = new Map(SORTS.map((sort) => [sort, report.filter(({ is }) => is === sort).length]));
  const fresh = (counts.get('new') ?? 0) + (counts.get('changed') ?? 0);
  return (
    <div className="mt-6 grid max-w-4xl gap-6">
      <div className="flex flex-wrap items-center gap-4">
        <label
          htmlFor={id}
          className={buttonClass(file ? 'quiet' : 'main', clsx('cursor-pointer', isBusy && 'opacity-60'))}
        >
          {desk(file ? 'desk-members.import-another' : 'desk-members.import-choose')}
          <input
            id={id}
            type="file"
            accept=".csv,.tsv,.txt,text/csv"
            disabled={isBusy}
            className="sr-only"
            onChange={(event) => {
              const chosen = event.target.files?.[0];
              event.target.value = '';
              if (chosen) void choose(chosen);
            }}
          />
        </label>
        {file && (
          <span className="text-muted">
            {desk('desk-members.import-file', { name: file.name, count: file.lines.length })}
          </span>
        )}
      </div>
      {problem && (
        <p
          role="alert"
          className="rounded-md border-l-4 border-closed bg-closed-wash px-3 py-2 font-medium text-closed"
        >
          {problem}
        </p>
      )}
      {file && (
        <fieldset disabled={isBusy} className="grid gap-5">
          <legend className="mb-2 text-xl font-semibold">{desk('desk-members.import-columns')}</legend>
          <div className="overflow-x-auto rounded-card border border-line bg-surface">
            <table className="w-full text-left">
              <thead>
                <tr className="text-[0.9375rem] text-muted">
                  <th className="px-4 py-2 font-normal">{desk('desk-members.import-heading')}</th>
                  <th className="px-4 py-2 font-normal">{desk('desk-members.import-sample')}</th>
                  <th className="px-4 py-2 font-normal">{desk('desk-members.import-is')}</th>
                </tr>
              </thead>
              <tbody>
                {file.head.map((heading, at) => (
                  <tr key={at} className="border-t border-line">
                    <th scope="row" className="max-w-48 px-4 py-2 font-semibold [overflow-wrap:anywhere]">
                      {heading}
                    </th>
                    <td className="max-w-64 px-4 py-2 text-muted [overflow-wrap:anywhere]">
                      {file.lines[0]?.[at]?.slice(0, 80)}
                    </td>
                    <td className="px-4 py-2">
                      <select
                        aria-label={desk('desk-members.import-column-is', { heading })}
                        className={`${inputClass} min-w-36 py-1`}
                        value={columns[at] ?? ''}
                        onChange={(event) =>
                          setColumns(
                            columns.map((one, n) =>
                              n === at ? ((event.target.value || null) as MemberColumn | null) : one,
                            ),
                          )
                        }
                      >
                        <option value="">{desk('desk-members.import-left-out')}</option>
                        {MEMBER_COLUMNS.map((column) => (
                          <option key={column} value={column}>
                            {desk(`desk-members.column-${column}`)}
                          </option>
                        ))}
                      </select>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <div className="flex flex-wrap gap-6">
            <label className="grid gap-1 font-semibold">
              {desk('desk-members.import-dates')}
              <select
                className={`${inputClass} font-normal`}
                value={dates}
                onChange={(event) => setDates(event.target.value as DateForm)}
              >
                {DATE_FORMS.map((form) => (
                  <option key={form} value={form}>
                    {desk(`desk-members.dates-${form}`)}
                  </option>
                ))}
              </select>
            </label>
            <label className="flex items-start gap-2.5 pt-7">
              <input
                type="checkbox"
                className="mt-1 size-4.5"
                checked={isPaid}
                onChange={(event) => setPaid(event.target.checked)}
              />
              <span className="font-semibold">{desk('desk-members.import-paid')}</span>
            </label>
          </div>
          <Button
            className="w-fit"
            look={stage === 'checked' ? 'quiet' : 'main'}
            onClick={() => void run(true)}
          >
            {desk('desk-members.import-check')}
          </Button>
        </fieldset>
      )}
      {isBusy && (
        <p role="status" className="figures flex items-center gap-3">
          <progress
            value={share}
            max={1}
            className="w-56"
            aria-label={desk(`desk-members.import-${stage}`)}
          />
          {desk(`desk-members.import-${stage}`)} {desk('desk-members.import-share', { share })}
        </p>
      )}
      {report.length > 0 && (
        <section aria-label={desk('desk-members.import-report')} className="grid gap-4">
          <h2 className="text-xl">
            {desk(stage === 'done' ? 'desk-members.import-done' : 'desk-members.import-would')}
          </h2>
          <ul className="figures flex flex-wrap gap-2">
            {SORTS.map((sort) => (
              <li key={sort} className={clsx('rounded-full px-3 py-0.5 font-semibold', LOOKS[sort])}>
                {desk(`desk-members.line-${sort}`, { count: counts.get(sort) ?? 0 })}
              </li>
            ))}
          </ul>
          {(counts.get('problem') ?? 0) > 0 && (
            <ul
              className="figures max-h-80 divide-y divide-line overflow-y-auto"
              tabIndex={0}
              aria-label={desk('desk-members.import-problems')}
            >
              {report
                .filter(({ is }) => is === 'problem')
                .slice(0, MOST_SHOWN)
                .map((line) => (
                  <li key={line.line} className="grid grid-cols-[5rem_1fr] gap-x-3 py-1.5">
                    <span className="text-muted">
                      {desk('desk-members.import-line', { line: line.line })}
                    </span>
                    <span className="[overflow-wrap:anywhere]">
                      {line.email} <span className="block text-closed">{line.words}</span>
                    </span>
                  </li>
                ))}
            </ul>
          )}
          {!isBusy && (
            <div className="flex flex-wrap gap-3">
              {stage === 'checked' && fresh > 0 && (
                <Button onClick={() => void run(false)}>
                  {desk('desk-members.import-now', { count: fresh })}
                </Button>
              )}
              {stage === 'checked' && fresh === 0 && (
                <p className="py-2">{desk('desk-members.import-nothing')}</p>
              )}
              <Button look="quiet" onClick={() => download(file?.name ?? '', report)}>
                {desk('desk-members.import-download')}
              </Button>
            </div>
          )}
        </section>
      )}
    </div>
  );
}

/** The heading is the first. */
const FIRST_LINE = 2;

function download(name: string, report: Line[]): void {
  const text = toCsv(
    ['line', 'email', 'result', 'problem'],
    report.map(({ line, email, is, words }) => [line, email, is, words]),
  );
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type: 'text/csv' }));
  link.download = `${name.replace(/\.\w+$/, '')}-report.csv`;
  link.click();
  URL.revokeObjectURL(link.href);
}
