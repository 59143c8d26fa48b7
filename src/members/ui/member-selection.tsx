'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState, type ReactNode } from 'react';
import type { GiftTerm } from '@/core/billing/gift-term';
import type { LocalDate } from '@/core/instants';
import { Button, buttonClass } from '@/kit/button';
import { inputClass } from '@/kit/input-class';
import { Link } from '@/kit/link';
import { desk } from '@/words/desk';
import { TermField } from './term-field';

type Named = { id: string; name: string };
type Whom = { by: 'ids'; ids: string[] } | { by: 'filter'; filter: Record<string, string | undefined> };
type Deed =
  | { do: 'put-in-group' | 'take-out-of-group'; groupId: string }
  | { do: 'give'; tierId: string; term: GiftTerm; isTold: boolean }
  | { do: 'remove' };
type Failed = { ok: false; problem: string };
type Props = {
  children: ReactNode;
  filter: Record<string, string | undefined>;
  /** How many the filter leaves, in words. */
  all: string;
  groups: Named[];
  tiers: Named[];
  today: LocalDate;
  count: (whom: Whom) => Promise<{ ok: true; count: number } | Failed>;
  change: (input: {
    whom: Whom;
    deed: Deed;
    after: string | null;
  }) => Promise<
    { ok: true; changed: number; refused: { id: string; words: string }[]; next: string | null } | Failed
  >;
};
type Report = { met: number; changed: number; refused: { id: string; words: string }[] };

/** What is chosen: to change them, or to go where they are written to, or fetched as a file. */
type Choice = Deed['do'] | 'write' | 'export';
const CHOICES: Choice[] = ['put-in-group', 'take-out-of-group', 'give', 'write', 'export', 'remove'];
const HREFS = { write: '/desk/members/letters/new', export: '/desk/members/export' } as const;

/** The members that are meant, as the address of a list has them. */
function queryOf(whom: Whom): string {
  if (whom.by === 'ids') return `ids=${whom.ids.join(',')}`;
  const set = Object.entries(whom.filter).flatMap(([name, value]) => (value ? [[name, value]] : []));
  return new URLSearchParams(set).toString();
}

/** A list whose rows can be ticked, and what is done with those, or with all that the filter leaves. */
export function MemberSelection({ children, filter, all, groups, tiers, today, count, change }: Props) {
  const list = useRef<HTMLDivElement>(null);
  const router = useRouter();
  const [ids, setIds] = useState<string[]>([]);
  const [isAll, setAll] = useState(false);
  const [deed, setDeed] = useState<Choice | ''>('');
  const [groupId, setGroup] = useState(groups[0]?.id ?? '');
  const [tierId, setTier] = useState(tiers[0]?.id ?? '');
  const [term, setTerm] = useState<GiftTerm>({ for: 'length', length: { n: 1, unit: 'month' } });
  const [isTold, setTold] = useState(false);
  const [asked, setAsked] = useState<number | null>(null);
  const [report, setReport] = useState<(Report & { isDone: boolean; of: number }) | null>(null);
  const [problem, setProblem] = useState('');

  const boxes = (): HTMLInputElement[] => [
    ...(list.current?.querySelectorAll<HTMLInputElement>('input[name="member"]') ?? []),
  ];
  const read = (): void => setIds(boxes().flatMap(({ checked, value }) => (checked ? [value] : [])));
  const whom: Whom = isAll ? { by: 'filter', filter } : { by: 'ids', ids };
  const wanted: Deed | null =
    deed === 'give'
      ? { do: 'give', tierId, term, isTold }
      : deed === 'remove'
        ? { do: 'remove' }
        : deed === 'put-in-group' || deed === 'take-out-of-group'
          ? { do: deed, groupId }
          : null;

  const ask = async (): Promise<void> => {
    setProblem('');
    setReport(null);
    const counted = await count(whom).catch(() => LOST);
    if (counted.ok) setAsked(counted.count);
    else setProblem(counted.problem);
  };
  const run = async (): Promise<void> => {
    if (!wanted || asked === null) return;
    const done: Report = { met: 0, changed: 0, refused: [] };
    setReport({ ...done, isDone: false, of: asked });
    for (let after: string | null = null, more = true; more;) {
      const step: Awaited<ReturnType<Props['change']>> = await change({ whom, deed: wanted, after }).catch(
        () => LOST,
      );
      if (!step.ok) {
        setProblem(step.problem);
        break;
      }
      done.changed += step.changed;
      done.refused.push(...step.refused);
      done.met += step.changed + step.refused.length;
      after = step.next;
      more = step.next !== null;
      setReport({ ...done, isDone: !more, of: asked });
    }
    setAsked(null);
    for (const box of boxes()) box.checked = false;
    setIds([]);
    setAll(false);
    router.refresh();
  };
  const isRunning = report !== null && !report.isDone && problem === '';
  const isOpen = ids.length > 0 || isAll;
  return (
    <>
      <div ref={list} onChange={read}>
        {children}
      </div>
      <div className="sticky bottom-0 z-10 mt-3 grid gap-3 border-t border-line bg-paper py-3">
        <div className="flex flex-wrap items-center gap-3">
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="size-4"
              checked={isAll}
              disabled={isRunning}
              onChange={(event) => {
                setAll(event.target.checked);
                setAsked(null);
              }}
            />
            {desk('desk-members.all-that-match', { all })}
          </label>
          <span className="figures text-muted">
            {!isAll && desk('desk-members.ticked', { count: ids.length })}
          </span>
          {isOpen && (
            <select
              aria-label={desk('desk-members.do-what')}
              className={`${inputClass} max-w-56`}
              value={deed}
              disabled={isRunning}
              onChange={(event) => {
                setDeed(event.target.value as Choice | '');
                setAsked(null);
              }}
            >
              <option value="">{desk('desk-members.do-what')}</option>
              {CHOICES.filter((one) => groups.length > 0 || !one.includes('group')).map((one) => (
                <option key={one} value={one}>
                  {desk(`desk-members.deed-${one}`)}
                </option>
              ))}
            </select>
          )}
          {isOpen && (deed === 'put-in-group' || deed === 'take-out-of-group') && (
            <select
              aria-label={desk('desk-members.group')}
              className={`${inputClass} max-w-48`}
              value={groupId}
              onChange={(event) => setGroup(event.target.value)}
            >
              {groups.map((group) => (
                <option key={group.id} value={group.id}>
                  {group.name}
                </option>
              ))}
            </select>
          )}
          {isOpen && deed === 'give' && (
            <>
              <select
                aria-label={desk('desk-members.give-what')}
                className={`${inputClass} max-w-48`}
                value={tierId}
                onChange={(event) => setTier(event.target.value)}
              >
                {tiers.map((tier) => (
                  <option key={tier.id} value={tier.id}>
                    {tier.name}
                  </option>
                ))}
              </select>
              <TermField
                label={desk('desk-members.give-how-long')}
                term={term}
                today={today}
                onChange={setTerm}
              />
              <label className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="size-4"
                  checked={isTold}
                  onChange={(event) => setTold(event.target.checked)}
                />
                {desk('desk-members.give-tell')}
              </label>
            </>
          )}
          {isOpen && deed === 'write' && (
            <Link href={`${HREFS.write}?${queryOf(whom)}`} className={buttonClass('quiet')}>
              {desk('desk-letters.write')}
            </Link>
          )}
          {isOpen && deed === 'export' && (
            <a href={`${HREFS.export}?${queryOf(whom)}`} download className={buttonClass('quiet')}>
              {desk('desk-members.export-csv')}
            </a>
          )}
          {isOpen && wanted && asked === null && !isRunning && (
            <Button look="quiet" onClick={() => void ask()}>
              {desk('desk-members.continue')}
            </Button>
          )}
        </div>
        {asked !== null && !report && wanted && (
          <div className="flex flex-wrap items-center gap-3 rounded-md bg-sunken p-3" role="alert">
            <p className="font-semibold">{desk(`desk-members.sure-${wanted.do}`, { count: asked })}</p>
            <Button
              look={wanted.do === 'remove' ? 'bad' : 'main'}
              disabled={asked === 0}
              onClick={() => void run()}
            >
              {desk('desk-members.do-it')}
            </Button>
            <Button look="quiet" onClick={() => setAsked(null)}>
              {desk('desk.cancel')}
            </Button>
          </div>
        )}
        {problem && (
          <p role="alert" className="font-medium text-closed">
            {problem}
          </p>
        )}
        {report && (
          <div role="status" className="figures grid gap-2">
            {isRunning && (
              <progress
                value={report.met}
                max={Math.max(1, report.of)}
                className="w-56"
                aria-label={desk('desk-members.changing')}
              />
            )}
            <p className="font-semibold">
              {desk(report.isDone ? 'desk-members.changed-report' : 'desk-members.changing-report', {
                changed: report.changed,
                refused: report.refused.length,
              })}
            </p>
            {report.refused.length > 0 && (
              <ul className="max-h-40 overflow-y-auto" tabIndex={0} aria-label={desk('desk-members.refused')}>
                {report.refused.slice(0, 50).map(({ id, words }) => (
                  <li key={id}>
                    <a href={`/desk/members/${id}`} className="text-spruce underline">
                      {desk('desk-members.this-member')}
                    </a>{' '}
                    {words}
                  </li>
                ))}
              </ul>
            )}
          </div>
        )}
      </div>
    </>
  );
}

const LOST: Failed = { ok: false, problem: desk('desk-members.change-lost') };
