'use client';

import { useEffect, useRef } from 'react';
import { desk } from '@/words/desk';
import { Button } from './button';

/** What someone else saved while this was being edited: what differs, theirs beside yours. */
export type Conflict = { version: number; rows: { label: string; theirs: string; yours: string }[] };

type Props = { conflict: Conflict; onMine: () => void; onTheirs: () => void };

/** Shows both versions, and lets one be chosen. */
export default function ConflictPanel({ conflict, onMine, onTheirs }: Props) {
  const panel = useRef<HTMLDivElement>(null);
  useEffect(() => panel.current?.focus(), []);
  return (
    <div
      ref={panel}
      role="alert"
      tabIndex={-1}
      className="rounded-md border-l-4 border-metered bg-metered-wash px-4 py-3"
    >
      <p className="font-semibold text-metered">{desk('desk-kit.conflict')}</p>
      {conflict.rows.length > 0 ? (
        <table className="mt-3 w-full bg-surface">
          <thead>
            <tr className="text-left text-muted">
              <th className="p-2 font-semibold">{desk('desk-kit.part')}</th>
              <th className="p-2 font-semibold">{desk('desk-kit.theirs')}</th>
              <th className="p-2 font-semibold">{desk('desk-kit.yours')}</th>
            </tr>
          </thead>
          <tbody>
            {conflict.rows.map((row) => (
              <tr key={row.label} className="border-t border-line align-top">
                <th scope="row" className="p-2 text-left font-semibold">
                  {row.label}
                </th>
                <td className="max-h-40 p-2 whitespace-pre-line">{row.theirs || desk('desk-kit.empty')}</td>
                <td className="max-h-40 p-2 whitespace-pre-line">{row.yours || desk('desk-kit.empty')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="mt-2">{desk('desk-kit.same')}</p>
      )}
      <div className="mt-3 flex flex-wrap gap-3">
        <Button onClick={onMine}>{desk('desk-kit.save-mine')}</Button>
        <Button look="quiet" onClick={onTheirs}>
          {desk('desk-kit.use-theirs')}
        </Button>
      </div>
    </div>
  );
}
