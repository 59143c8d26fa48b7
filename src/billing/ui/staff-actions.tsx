'use client';

import { useState } from 'react';
import type { Deed } from '@/core/billing/deeds';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button, LinkButton } from '@/kit/button';
import type { MemberId } from '@/core/ids';

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
  const later = until && state !== 'overdue' ? `It ends on ${until}` : 'It ends now';
  const all: Offer[] = [
    {
      deed: 'pause',
      button: 'Pause',
      asks: `From ${until ?? 'the end of the period'}, nothing is charged and the member has no access until you resume it.`,
      yes: 'Yes, pause it',
    },
    {
      deed: 'resume',
      button: pauses ? 'Undo the pause' : 'Resume',
      asks: pauses ? 'It continues without the pause.' : 'The next period begins now and is charged now.',
      yes: pauses ? 'Yes, undo it' : 'Yes, resume and charge',
    },
    {
      deed: 'undo',
      button: 'Undo the cancellation',
      asks: 'It continues as before, and is charged again.',
      yes: 'Yes, undo it',
    },
    {
      deed: 'cancel',
      button: 'Cancel',
      asks: `${later}, and the member is told by mail.`,
      yes: 'Yes, cancel',
      bad: true,
    },
    {
      deed: 'take-away',
      button: 'End now',
      asks: 'The member loses access now. Nothing is refunded; refund payments separately.',
      yes: 'Yes, end it now',
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
          <SubmitButton look={asked.bad ? 'bad' : 'main'} busy="One moment…">
            {asked.yes}
          </SubmitButton>
          <Button look="quiet" onClick={() => setAsking(null)}>
            No
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
          Switch…
        </LinkButton>
      )}
    </div>
  );
}
