'use client';

import { useState } from 'react';
import type { Instant } from '@/core/calendar';
import type { KeyCut } from '@/core/key-cut';
import { newStep, readDraft, type OfferDraft, type StepDraft } from '@/core/offers/draft';
import { offerPrice, offerSentence } from '@/core/offers/sentence';
import { KeyGlyph } from '../key-cut';
import { ActionForm, FormMessage, SubmitButton, useProblem, type FormAction } from '../kit/action-form';
import { Button } from '../kit/button';
import { CheckField, SelectField, TextField } from '../kit/field';
import { OfferStep } from './offer-step';
import { SchedulePreview } from './schedule-preview';
import { StepStrip } from './step-strip';

type Props = {
  action: FormAction;
  offer: { id: string; name: string; onSale: boolean; version: number };
  draft: OfferDraft;
  tier: { name: string; description: string; keyCut: KeyCut };
  tiers: { id: string; name: string }[];
  zone: string;
  now: Instant;
  today: string;
};

const CURRENCIES = [
  'GBP',
  'EUR',
  'USD',
  'CHF',
  'SEK',
  'NOK',
  'DKK',
  'PLN',
  'CAD',
  'AUD',
  'NZD',
  'JPY',
  'KWD',
];

/** An offer as a strip of steps; beside it, live, what it means in dates and money. */
export function OfferEditor({ action, offer, draft: initial, tier, tiers, zone, now, today }: Props) {
  const [draft, setDraft] = useState(initial);
  const [hasTried, setHasTried] = useState(false);
  const read = readDraft(draft);
  const problems = read.ok ? {} : read.problems;
  const change = (part: Partial<OfferDraft>): void => setDraft((before) => ({ ...before, ...part }));
  const changeStep = (index: number, part: Partial<StepDraft>): void =>
    change({ steps: draft.steps.map((step, at) => (at === index ? { ...step, ...part } : step)) });
  const move = (index: number, by: number): void => {
    const steps = [...draft.steps];
    const [step] = steps.splice(index, 1);
    if (step) steps.splice(index + by, 0, step);
    change({ steps });
  };
  const hasTrial = draft.steps.some((step) => step.kind === 'trial');

  return (
    <div
      className="mt-5 grid items-start gap-8 xl:grid-cols-[1fr_20rem]"
      onSubmitCapture={(event) => {
        if (read.ok) return;
        // What is wrong is known here already: show it, and ask nobody.
        event.preventDefault();
        event.stopPropagation();
        setHasTried(true);
      }}
    >
      <ActionForm action={action} label="Offer" className="grid gap-6">
        <FormMessage />
        <input type="hidden" name="id" value={offer.id} />
        <input type="hidden" name="definition" value={JSON.stringify(read.ok ? read.offer : null)} />
        {read.ok ? (
          <p className="font-display text-2xl leading-snug font-semibold">“{offerSentence(read.offer)}”</p>
        ) : (
          <p className="font-display text-2xl leading-snug text-muted">
            The sentence for the join page stands here once every step is filled in.
          </p>
        )}
        <StepStrip steps={draft.steps} offer={read.ok ? read.offer : null} />
        <div className="flex flex-wrap gap-4">
          <TextField
            name="name"
            label="Name of the offer"
            defaultValue={offer.name}
            placeholder="Monthly"
            className="w-56"
          />
          <SelectField
            name="currency"
            label="Currency"
            value={draft.currency}
            onChange={(event) => change({ currency: event.target.value })}
            className="w-32"
          >
            {[...new Set([draft.currency, ...CURRENCIES])].map((code) => (
              <option key={code}>{code}</option>
            ))}
          </SelectField>
        </div>
        <ol className="grid gap-3">
          {draft.steps.map((step, index) => (
            <OfferStep
              key={index}
              index={index}
              count={draft.steps.length}
              step={step}
              currency={draft.currency}
              tierName={tier.name}
              tiers={tiers}
              problems={problems}
              showEmpty={hasTried}
              onChange={(part) => changeStep(index, part)}
              onMove={(by) => move(index, by)}
              onRemove={() => change({ steps: draft.steps.filter((_, at) => at !== index) })}
            />
          ))}
        </ol>
        <StepProblem local={problems.steps} />
        {hasTried && !read.ok && (
          <p role="alert" className="font-medium text-closed">
            Something in the steps needs another look; it is marked.
          </p>
        )}
        <div className="flex flex-wrap gap-2">
          <Button
            look="quiet"
            onClick={() => change({ steps: [newStep('trial'), ...draft.steps] })}
            disabled={hasTrial}
          >
            Begin with a trial
          </Button>
          <Button look="quiet" onClick={() => change({ steps: [...draft.steps, newStep('repeat')] })}>
            Add a repeating price
          </Button>
          <Button look="quiet" onClick={() => change({ steps: [...draft.steps, newStep('once')] })}>
            Add a single payment
          </Button>
        </div>
        <div className="flex flex-wrap gap-4">
          <TextField
            name="feeAmount"
            label={`Joining fee (${draft.currency})`}
            inputMode="decimal"
            placeholder="none"
            value={draft.feeAmount}
            problem={problems.joiningFee}
            onChange={(event) => change({ feeAmount: event.target.value })}
            className="w-44"
          />
          <SelectField
            name="feeDue"
            label="The fee is due"
            value={draft.feeDue}
            onChange={(event) => change({ feeDue: event.target.value as OfferDraft['feeDue'] })}
            className="w-56"
          >
            <option value="first-payment">with the first payment</option>
            <option value="start">on joining</option>
          </SelectField>
          <SelectField
            name="after"
            label="After the last step"
            value={draft.after}
            onChange={(event) => change({ after: event.target.value as OfferDraft['after'] })}
            className="w-56"
          >
            <option value="end">it ends</option>
            <option value="keep">the tier is kept for good</option>
          </SelectField>
        </div>
        <SchedulePreview offer={read.ok ? read.offer : null} zone={zone} now={now} today={today} />
        <CheckField name="onSale" label="On sale" defaultChecked={offer.onSale} />
        {offer.version > 0 && (
          <p className="text-muted">
            Those who joined by this offer keep what they bought: other money makes version{' '}
            {offer.version + 1}, for those who join from then on.
          </p>
        )}
        <SubmitButton busy="Saving…" className="w-fit px-8">
          {offer.id ? 'Save the offer' : 'Make the offer'}
        </SubmitButton>
      </ActionForm>
      <aside
        aria-label="As it will look on the join page"
        className="rounded-xl bg-night p-6 text-on-night xl:sticky xl:top-6"
        style={{ colorScheme: 'dark' }}
      >
        <KeyGlyph cut={tier.keyCut} size={26} onNight />
        <h2 className="mt-3 text-2xl break-words">{tier.name}</h2>
        <p className="mt-1 text-on-night-soft">{tier.description || 'Its description stands here.'}</p>
        <p className="figures mt-5 font-display text-3xl font-bold first-letter:uppercase">
          {read.ok ? offerPrice(read.offer) : '…'}
        </p>
        <p className="mt-1 text-on-night-soft">{read.ok ? offerSentence(read.offer) : ''}</p>
        <p
          className="mt-5 rounded-lg bg-lamp px-4 py-2.5 text-center font-semibold text-[#1c2a2e]"
          aria-hidden
        >
          Join {tier.name}
        </p>
      </aside>
    </div>
  );
}

function StepProblem({ local }: { local?: string }) {
  const found = useProblem('definition.steps') ?? local;
  return found ? (
    <p role="alert" className="font-medium text-closed">
      {found}
    </p>
  ) : null;
}
