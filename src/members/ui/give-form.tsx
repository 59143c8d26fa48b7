'use client';

import { useState } from 'react';
import type { GiftTerm } from '@/core/billing/gift-term';
import type { MemberId } from '@/core/ids';
import type { LocalDate } from '@/core/instants';
import { ActionForm, Draft, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, SelectField } from '@/kit/field';
import { desk } from '@/words/desk';
import { TermField } from './term-field';

type Named = { id: string; name: string };
type Props = {
  action: FormAction;
  memberId: MemberId;
  tiers: Named[];
  passes: Named[];
  /** The site's date. */
  today: LocalDate;
};

/** Gives a member a tier or a pass at no charge. */
export function GiveForm({ action, memberId, tiers, passes, today }: Props) {
  const [what, setWhat] = useState(tiers[0] ? `tier:${tiers[0].id}` : `pass:${passes[0]?.id ?? ''}`);
  const [term, setTerm] = useState<GiftTerm>({ for: 'length', length: { n: 1, unit: 'month' } });
  const [isTold, setTold] = useState(true);
  const [kind, id] = [what.slice(0, what.indexOf(':')), what.slice(what.indexOf(':') + 1)];
  return (
    <ActionForm action={action} label={desk('desk-members.give')} className="grid w-full gap-4">
      <FormMessage />
      <Draft name="gift" value={{ kind, id, memberId, term, isTold }} />
      <div className="flex flex-wrap items-end gap-4">
        <SelectField
          name="tier"
          label={desk('desk-members.give-what')}
          value={what}
          onChange={(event) => setWhat(event.target.value)}
          className="w-64 max-w-full"
        >
          {tiers.length > 0 && (
            <optgroup label={desk('desk.tiers')}>
              {tiers.map((tier) => (
                <option key={tier.id} value={`tier:${tier.id}`}>
                  {tier.name}
                </option>
              ))}
            </optgroup>
          )}
          {passes.length > 0 && (
            <optgroup label={desk('desk-members.passes')}>
              {passes.map((pass) => (
                <option key={pass.id} value={`pass:${pass.id}`}>
                  {pass.name}
                </option>
              ))}
            </optgroup>
          )}
        </SelectField>
        <TermField label={desk('desk-members.give-how-long')} term={term} today={today} onChange={setTerm} />
      </div>
      <CheckField
        name="isTold"
        label={desk('desk-members.give-tell')}
        checked={isTold}
        onChange={(event) => setTold(event.target.checked)}
      />
      <SubmitButton busy={desk('desk-members.giving')} className="w-fit px-8">
        {desk('desk-members.give-button')}
      </SubmitButton>
    </ActionForm>
  );
}
