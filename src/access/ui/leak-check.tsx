'use client';

import { CircleCheck, TriangleAlert } from 'lucide-react';
import { Link } from '@/kit/link';
import { useState } from 'react';
import type { Instant } from '@/core/instants';
import { Button } from '@/kit/button';
import { useDeskWords } from '@/kit/desk-words';
import { Empty } from '@/kit/empty';
import { desk } from '@/words/desk';
import { ask } from './map-data';

export type ShownCheck = {
  id: string;
  startedAt: Instant;
  finishedAt: Instant | null;
  position: number;
  total: number;
  addresses: number;
  viewpoints: Record<string, string>;
  found: {
    kind: 'words' | 'hidden' | 'shut' | 'failed';
    path: string;
    viewpoint: string;
    item: string | null;
    evidence: string;
  }[];
  titles: Record<string, string>;
};
type Found = ShownCheck['found'][number];

/** A leak is what should not have been sent; the rest is what should have been. */
const isLeak = ({ kind }: Found): boolean => kind === 'words' || kind === 'hidden';

/** Runs a check piece by piece, and shows what the last one found, with the words it was found by. */
export function LeakCheck({ last, mayCheck }: { last: ShownCheck | null; mayCheck: boolean }) {
  const [check, setCheck] = useState(last);
  const [isRunning, setRunning] = useState(false);
  const [hasFailed, setFailed] = useState(false);
  const run = async (): Promise<void> => {
    setRunning(true);
    setFailed(false);
    const begun = await ask<{ id: string; total: number }>('/desk/leak-check', {});
    for (let now: ShownCheck | null | undefined; begun && !now?.finishedAt;) {
      now = await ask<ShownCheck>('/desk/leak-check/step', { id: begun.id });
      if (!now) {
        setFailed(true);
        break;
      }
      setCheck(now);
    }
    if (!begun) setFailed(true);
    setRunning(false);
  };
  return (
    <div className="mt-4 grid gap-5">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        {mayCheck && (
          <Button onClick={() => void run()} disabled={isRunning}>
            {isRunning ? desk('desk-access.checking') : desk('desk-access.check-now')}
          </Button>
        )}
        {isRunning && check && !check.finishedAt && (
          <p role="status" className="flex items-center gap-3">
            <progress value={check.position} max={check.total} className="w-56" />
            <span className="figures text-muted">
              {desk('desk-access.check-progress', { position: check.position, total: check.total })}
            </span>
          </p>
        )}
        {hasFailed && (
          <p role="alert" className="font-medium text-closed">
            {desk('desk-access.check-failed')}
          </p>
        )}
      </div>
      {check ? (
        <Result check={check} isRunning={isRunning} />
      ) : (
        <div className="max-w-3xl">
          <Empty title={desk('desk-access.never-checked')}>{desk('desk-access.never-checked-hint')}</Empty>
        </div>
      )}
    </div>
  );
}

function Result({ check, isRunning }: { check: ShownCheck; isRunning: boolean }) {
  const t = useDeskWords();
  const leaks = check.found.filter(isLeak);
  const others = check.found.filter((one) => !isLeak(one));
  const date = t.dateTime(check.startedAt);
  const { position, total, addresses } = check;
  return (
    <section aria-label={desk('desk-access.leak-check')}>
      {!isRunning && (
        <>
          {check.finishedAt && (
            <h2
              className={`flex items-center gap-2 text-2xl ${leaks.length > 0 ? 'text-closed' : 'text-open'}`}
            >
              {leaks.length > 0 ? (
                <TriangleAlert className="size-6" aria-hidden />
              ) : (
                <CircleCheck className="size-6" aria-hidden />
              )}
              {leaks.length > 0
                ? desk('desk-access.leaks-found', { count: leaks.length })
                : desk('desk-access.no-leak')}
            </h2>
          )}
          <p className="figures mt-1 text-muted">
            {check.finishedAt
              ? desk('desk-access.checked-on', {
                  date,
                  addresses,
                  viewpoints: Object.keys(check.viewpoints).length,
                  total,
                })
              : desk('desk-access.check-unfinished', { date, position, total })}
          </p>
        </>
      )}
      <FoundTable found={leaks} check={check} />
      {others.length > 0 && (
        <>
          <h3 className="mt-5 text-lg text-metered">
            {desk('desk-access.others-found', { count: others.length })}
          </h3>
          <FoundTable found={others} check={check} />
        </>
      )}
    </section>
  );
}

function FoundTable({ found, check }: { found: Found[]; check: ShownCheck }) {
  if (found.length === 0) return null;
  return (
    <div className="mt-3 overflow-x-auto rounded-card border border-line bg-surface">
      <table className="w-full min-w-[44rem]">
        <thead>
          <tr className="border-b border-line text-left text-[0.9375rem] text-muted">
            <th className="px-4 py-2 font-normal">{desk('desk-access.found-at')}</th>
            <th className="px-4 py-2 font-normal">{desk('desk-access.found-as')}</th>
            <th className="px-4 py-2 font-normal">{desk('desk-access.found-what')}</th>
            <th className="px-4 py-2 font-normal">{desk('desk-access.found-of')}</th>
          </tr>
        </thead>
        <tbody>
          {found.slice(0, 200).map((one, n) => (
            <tr key={n} className="border-b border-line align-top last:border-0">
              <td className="px-4 py-2 break-all">
                <a href={one.path} className="text-spruce underline">
                  {one.path}
                </a>
              </td>
              <td className="px-4 py-2">{check.viewpoints[one.viewpoint] ?? one.viewpoint}</td>
              <td className="px-4 py-2">{evidenceWords(one, check)}</td>
              <td className="px-4 py-2">
                {one.item && (
                  <Link
                    href={`/desk/access?${new URLSearchParams({ why: one.item, as: one.viewpoint }).toString()}`}
                    className="text-spruce underline"
                  >
                    {check.titles[one.item] ?? one.item}
                  </Link>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function evidenceWords({ kind, evidence, item, path }: Found, { titles }: ShownCheck): string {
  const title = item === null ? '' : (titles[item] ?? item);
  switch (kind) {
    case 'words':
      return path.startsWith('/downloads/')
        ? desk('desk-access.found-file')
        : desk('desk-access.found-words', { evidence });
    case 'hidden':
      return desk('desk-access.found-hidden', { title });
    case 'shut':
      return desk('desk-access.found-shut', { evidence });
    case 'failed':
      return desk('desk-access.found-failed', { evidence });
  }
}
