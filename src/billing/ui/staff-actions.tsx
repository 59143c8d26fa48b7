'use client';

import { useState } from 'react';
import type { Deed } from '@/core/billing/deeds';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button, LinkButton } from '@/kit/button';
import type { MemberId } from '@/core/ids';
import { desk } from '@/words/desk';

type Props = {
  id: string;
  state: string;
  pauses: boolean;
  /** What would not be refused now. */
  deeds: Deed[];
  canSwitch: boolean;
  until: string | null;
  memberId: MemberId;
  action: FormAction;
};
type Offer = { deed: Deed; button: string; asks: string; yes: string; bad?: boolean };

function offersOf({ state, pauses, deeds, until }: Props): Offer[] {
  const later =
    until && state !== 'overdue' ? desk('desk-money.it-ends-on', { until }) : desk('desk-money.it-ends-now');
  const all: Offer[] = [
    {
      deed: 'pause',
      button: desk('desk-money.pause'),
      asks: desk('desk-money.from-nothing-is-charged-and', {
        until: until ?? desk('desk-money.the-end-of-the-period'),
      }),
      yes: desk('desk-money.yes-pause-it'),
    },
    {
      deed: 'resume',
      button: pauses ? desk('desk-money.undo-the-pause') : desk('desk-money.resume'),
      asks: pauses
        ? desk('desk-money.it-continues-without-the-pause')
        : desk('desk-money.the-next-period-begins-now'),
      yes: pauses ? desk('desk-money.yes-undo-it') : desk('desk-money.yes-resume-and-charge'),
    },
    {
      deed: 'undo',
      button: desk('desk-money.undo-the-cancellation'),
      asks: desk('desk-money.it-continues-as-before-and'),
      yes: desk('desk-money.yes-undo-it'),
    },
    {
      deed: 'cancel',
      button: desk('desk.cancel'),
      asks: desk('desk-money.and-the-member-is-told', { later }),
      yes: desk('desk-money.yes-cancel'),
      bad: true,
    },
    {
      deed: 'take-away',
      button: desk('desk-money.end-now'),
      asks: desk('desk-money.the-member-loses-access-now'),
      yes: desk('desk-money.yes-end-it-now'),
      bad: true,
    },
  ];
  return all.filter(({ deed }) => deeds.includes(deed));
}

/** What staff can do about a subscription; each asks in words before it is done. */
export function StaffActions(props: Props) {
  const [asking, setAsking] = useState<Deed | null>(null);
  const offers = offersOf(props);
  const asked = offers.find((offer) => offer.deed === asking);
  if (asked)
    return (
      <ActionForm action={props.action} className="mt-3 grid gap-3 rounded-md bg-sunken p-3">
        <input type="hidden" name="subscription" value={props.id} />
        <input type="hidden" name="deed" value={asked.deed} />
        <p className="font-semibold">{asked.asks}</p>
        <div className="flex flex-wrap gap-2">
          <SubmitButton look={asked.bad ? 'bad' : 'main'} busy={desk('desk.one-moment')}>
            {asked.yes}
          </SubmitButton>
          <Button look="quiet" onClick={() => setAsking(null)}>
            {desk('desk-money.no')}
          </Button>
        </div>
        <FormMessage />
      </ActionForm>
    );
  return (
    <div className="mt-3 flex flex-wrap gap-2">
      {offers.map((offer) => (
        <Button key={offer.deed} look="quiet" onClick={() => setAsking(offer.deed)}>
          {offer.button}
        </Button>
      ))}
      {props.canSwitch && (
        <LinkButton look="quiet" href={`/desk/members/${props.memberId}/switch/${props.id}`}>
          {desk('desk-money.switch')}
        </LinkButton>
      )}
    </div>
  );
}
