'use client';

import clsx from 'clsx';
import { Link } from '@/kit/link';
import { startTransition, useOptimistic, useState } from 'react';
import type { KeyCut } from '@/core/key-cut';
import { KeyGlyph } from '@/kit/key-cut';
import { useToast } from '@/kit/surroundings';
import { SortableList, SortableRow } from '@/kit/sortable-list';
import type { TierId } from '@/core/ids';
import { desk } from '@/words/desk';

export type TierLine = {
  id: string;
  name: string;
  keyCut: KeyCut;
  prices: string[];
  members: string;
  /** What it brings in a month, as words; empty where nothing. */
  income: string;
  /** What sets it apart: "12 of 30 left", "by code", "retired". */
  notes: string[];
  isQuiet: boolean;
};

type Props = {
  ladderId: string | null;
  label: string;
  tiers: TierLine[];
  arrange: (order: { ladderId: string | null; tierIds: TierId[] }) => Promise<string | null>;
};

/** The tiers of a ladder as its rungs, the highest on top; or the separate tiers. */
export function TierLadder({ ladderId, label, tiers, arrange }: Props) {
  const [shown, show] = useOptimistic(tiers);
  const [problem, setProblem] = useState<string | null>(null);
  const showToast = useToast();
  const isLadder = ladderId !== null;
  const move = (ids: string[]): void => {
    const order = ids.flatMap((id) => shown.find((tier) => tier.id === id) ?? []);
    startTransition(async () => {
      show(order);
      const before = tiers.map((tier) => tier.id);
      const refused = await arrange({ ladderId, tierIds: ids });
      setProblem(refused);
      if (refused === null)
        showToast(
          desk('desk-tiers.order-saved'),
          async () => (await arrange({ ladderId, tierIds: before })) ?? desk('desk-tiers.order-restored'),
        );
    });
  };
  return (
    <>
      <SortableList
        ids={shown.map((tier) => tier.id)}
        nameOf={(id) => shown.find((tier) => tier.id === id)?.name ?? id}
        onMove={move}
        label={label}
        className={
          isLadder
            ? 'mt-3 border-x-4 border-line px-4 py-1'
            : 'mt-3 divide-y divide-line border-y border-line'
        }
      >
        {shown.map((tier) => (
          <SortableRow
            key={tier.id}
            id={tier.id}
            name={tier.name}
            className={clsx(
              'flex items-start gap-1 py-3',
              isLadder && 'my-2 border-t-4 border-line bg-surface px-4',
              !isLadder && 'bg-paper px-1',
            )}
          >
            <div className={clsx('min-w-0 flex-1', tier.isQuiet && 'opacity-75')}>
              <div className="flex items-center gap-3">
                <KeyGlyph cut={tier.keyCut} size={20} />
                <Link
                  href={`/desk/tiers/${tier.id}`}
                  className="truncate font-display text-lg font-semibold hover:underline"
                >
                  {tier.name}
                </Link>
                <span className="figures ml-auto flex-none text-right">{tier.members}</span>
              </div>
              <div className="figures mt-0.5 flex justify-between gap-4 text-muted">
                <p>
                  {tier.prices.length === 0 ? (
                    <span className="text-closed">{desk('desk-tiers.no-offer-yet-nobody-can-join')}</span>
                  ) : (
                    tier.prices.join(' · ')
                  )}
                  {tier.notes.length > 0 && ` · ${tier.notes.join(' · ')}`}
                </p>
                {tier.income && <p className="flex-none text-right">{tier.income}</p>}
              </div>
            </div>
          </SortableRow>
        ))}
      </SortableList>
      {problem && (
        <p role="alert" className="mt-2 font-medium text-closed">
          {problem}
        </p>
      )}
    </>
  );
}
