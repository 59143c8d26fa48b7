'use client';

import { useState } from 'react';
import type { GiftTerm } from '@/core/billing/gift-term';
import type { KeyCut } from '@/core/key-cut';
import type { MemberId } from '@/core/ids';
import type { LocalDate } from '@/core/instants';
import { ActionForm, Draft, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Confirm } from '@/kit/confirm';
import { ConfirmAction } from '@/kit/confirm-action';
import { TierName } from '@/kit/key-cut';
import { desk } from '@/words/desk';
import { TermField } from './term-field';

export type HeldRow = {
  id: string;
  name: string;
  /** Null for a pass. */
  keyCut: KeyCut | null;
  /** The pass; null for a tier. */
  passId: string | null;
  /** Why it is held, since when and until when, in words. */
  words: string;
  /** Whether staff gave it, or an import: they can change when it ends. */
  isGift: boolean;
};

type Props = {
  memberId: MemberId;
  rows: HeldRow[];
  today: LocalDate;
  /** Null for staff who may look only. */
  actions: { change: FormAction; take: FormAction } | null;
};

/** What a member holds now and why, with what staff can do about what was given. */
export function HoldingsList({ memberId, rows, today, actions }: Props) {
  if (rows.length === 0) return <p className="text-muted">{desk('desk-members.nothing')}</p>;
  return (
    <ul className="grid gap-3">
      {rows.map((row) => (
        <li key={row.id}>
          {row.keyCut ? <TierName cut={row.keyCut} name={row.name} /> : <b>{row.name}</b>}
          <span className="text-muted"> {row.words}</span>
          {actions && (row.isGift || row.passId) && (
            <div className="mt-1.5 flex flex-wrap gap-2">
              {row.isGift && !row.passId && (
                <ChangeEnd memberId={memberId} row={row} today={today} action={actions.change} />
              )}
              <ConfirmAction
                action={actions.take}
                fields={{ member: memberId, id: row.id, pass: row.passId ?? '' }}
                summary={desk('desk-members.end-it')}
                question={desk('desk-members.end-it-sure', { name: row.name })}
                yes={desk('desk-members.end-it-now')}
                busy={desk('desk.one-moment')}
              />
            </div>
          )}
        </li>
      ))}
    </ul>
  );
}

function ChangeEnd({
  memberId,
  row,
  today,
  action,
}: {
  memberId: MemberId;
  row: HeldRow;
  today: LocalDate;
  action: FormAction;
}) {
  const [term, setTerm] = useState<GiftTerm>({ for: 'day', lastDay: today });
  return (
    <Confirm
      look="quiet"
      summary={desk('desk-members.change-end')}
      question={desk('desk-members.change-end-of', { name: row.name })}
    >
      <ActionForm action={action} className="grid w-full gap-3">
        <Draft name="change" value={{ memberId, holdingId: row.id, term }} />
        <TermField label={desk('desk-members.held-for')} term={term} today={today} onChange={setTerm} />
        <FormMessage />
        <SubmitButton busy={desk('desk.saving')} className="w-fit">
          {desk('desk.save')}
        </SubmitButton>
      </ActionForm>
    </Confirm>
  );
}
