'use client';

import { useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import type { Instant, LocalDate } from '@/core/instants';
import type { Prose } from '@/core/content/prose';
import type { KeyCut } from '@/core/key-cut';
import { cannotCarry, type Carries } from '@/core/offers/carries';
import { isRenewableDraft, newStep, readDraft, type OfferDraft, type StepDraft } from '@/core/offers/draft';
import { offerPrice, offerSentence } from '@/words/offers';
import { formatsOf, type Writing } from '@/words/formats';
import { speak } from '@/words/speak';
import { useDeskWords } from '@/kit/desk-words';
import { ActionForm, Draft, FormMessage, SubmitButton, useProblem, type FormAction } from '@/kit/action-form';
import { AmountField } from '@/kit/amount-field';
import { Button } from '@/kit/button';
import { CheckField, SelectField, TextField } from '@/kit/field';
import type { HolderPrice } from '@/core/tiers/holder-prices';
import { HolderPrices } from './holder-prices';
import { JoinCard, type JoinCardOpens } from './join-card';
import { PATTERNS } from './offer-patterns';
import { OfferStep, type KeyedStep } from './offer-step';
import { SchedulePreview } from './schedule-preview';
import { StepStrip } from './step-strip';
import type { PictureId } from '@/core/ids';
import { desk } from '@/words/desk';

type Props = {
  action: FormAction;
  offer: { id: string; name: string; onSale: boolean; version: number; holderPrices: HolderPrice[] };
  draft: OfferDraft;
  tier: { id: string; name: string; description: Prose; keyCut: KeyCut; pictureId: PictureId | null };
  opens: JoinCardOpens | undefined;
  tiers: { id: string; name: string; keyCut: KeyCut }[];
  /** How the site speaks to members, for the sentence and the card of the join page. */
  site: Writing & { messages: Record<string, string> };
  now: Instant;
  today: LocalDate;
  /** What each gateway can carry: the editor says at once what one cannot. */
  gateways: { label: string; carries: Carries }[];
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
export function OfferEditor({
  action,
  offer,
  draft: initial,
  tier,
  opens,
  tiers,
  site,
  now,
  today,
  gateways,
}: Props) {
  const deskWords = useDeskWords();
  const { zone, language, messages } = site;
  const t = useMemo(
    () => speak(formatsOf({ zone, language }), language, (key) => messages[key]),
    [zone, language, messages],
  );
  const [rest, setRest] = useState<Omit<OfferDraft, 'steps'>>(initial);
  const [steps, setSteps] = useState<KeyedStep[]>(() => keyed(initial.steps, 'step'));
  const [name, setName] = useState(offer.name);
  const [hasTried, setHasTried] = useState(false);
  const added = useRef(0);
  const draft: OfferDraft = { ...rest, steps: steps.map((step) => step.draft) };
  const read = readDraft(draft, today, language);
  const problems = read.ok ? {} : deskWords.problems(read.problems);
  const change = (part: Partial<Omit<OfferDraft, 'steps'>>): void =>
    setRest((before) => ({ ...before, ...part }));
  const changeStep = (key: string, part: Partial<StepDraft>): void =>
    setSteps((all) =>
      all.map((step) => (step.key === key ? { key, draft: { ...step.draft, ...part } } : step)),
    );
  const add = (kind: StepDraft['kind']): void => {
    const step = { key: `added-${added.current++}`, draft: newStep(kind) };
    setSteps((all) => (kind === 'trial' ? [step, ...all] : [...all, step]));
  };
  const begin = ({ steps: fresh, ...part }: Partial<OfferDraft> & { steps: StepDraft[] }): void => {
    change({ after: 'end', renewDays: '', ...part });
    setSteps(keyed(fresh, `begun-${added.current++}`));
  };
  const tierNames = new Map(tiers.map((each) => [each.id, each.name]));
  const uncarried = read.ok
    ? gateways.flatMap(({ label, carries }) =>
        cannotCarry(carries, read.offer).map(({ why, what }) =>
          desk('desk-tiers.uncarried', { gateway: label, why, what }),
        ),
      )
    : [];
  const sentence = read.ok ? offerSentence(read.offer, t, { tierNames }) : '';
  const canRenew = isRenewableDraft(draft);
  const hasTrial = steps.some((step) => step.draft.kind === 'trial');

  return (
    <div
      className="mt-5 grid items-start gap-8 xl:grid-cols-[1fr_20rem]"
      onSubmitCapture={(event) => {
        if (read.ok) return;
        // What is wrong is known here already: show it, and ask nobody.
        event.preventDefault();
        event.stopPropagation();
        flushSync(() => setHasTried(true));
        // The button is far below the steps: what needs another look is brought into sight.
        event.currentTarget.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
      }}
    >
      <ActionForm action={action} label={desk('desk.offer')} className="grid min-w-0 gap-6">
        <FormMessage />
        <input type="hidden" name="id" value={offer.id} />
        <input type="hidden" name="version" value={offer.version} />
        <Draft name="definition" value={read.ok ? read.offer : null} />
        <p
          className={
            read.ok
              ? 'min-h-9 font-display text-2xl leading-snug font-semibold'
              : 'min-h-9 font-display text-2xl leading-snug text-muted'
          }
          aria-live="polite"
        >
          {read.ok ? `“${sentence}”` : desk('desk-tiers.the-sentence-for-the-join')}
        </p>
        {uncarried.length > 0 && (
          <p role="status" className="border-l-4 border-metered bg-metered-wash px-3 py-2 text-metered">
            {desk('desk-tiers.checkout-leaves-out-what-cannot', { list: uncarried.join('; ') })}
          </p>
        )}
        {!offer.id && (
          <div className="flex flex-wrap items-center gap-2">
            <span className="text-muted">{desk('desk-tiers.begin-as')}</span>
            {PATTERNS.map((pattern) => (
              <Button
                key={pattern.name}
                look="quiet"
                className="min-h-8 px-3"
                onClick={() => begin(pattern.make())}
              >
                {pattern.name}
              </Button>
            ))}
          </div>
        )}
        <StepStrip
          steps={steps}
          offer={read.ok ? read.offer : null}
          hasProblem={(index) => Object.keys(problems).some((path) => path.startsWith(`steps.${index}`))}
          tierOf={(id) => tiers.find((each) => each.id === id)}
          onMove={(keys) =>
            setSteps((all) => keys.flatMap((key) => all.find((step) => step.key === key) ?? []))
          }
          onChoose={(key) => document.getElementById(key)?.querySelector<HTMLElement>('input')?.focus()}
        />
        <div className="flex flex-wrap gap-4">
          <TextField
            name="name"
            label={desk('desk-tiers.name-of-the-offer')}
            value={name}
            onChange={(event) => setName(event.target.value)}
            placeholder={desk('desk-tiers.monthly')}
            className="w-56"
          />
          <SelectField
            name="currency"
            label={desk('desk.currency')}
            value={draft.currency}
            onChange={(event) => change({ currency: event.target.value })}
            className="w-64"
          >
            {[...new Set([draft.currency, ...CURRENCIES])].map((code) => (
              <option key={code} value={code}>
                {deskWords.currency(code)}
              </option>
            ))}
          </SelectField>
        </div>
        <ol className="grid gap-3">
          {steps.map(({ key, draft: step }, index) => (
            <OfferStep
              key={key}
              id={key}
              index={index}
              count={steps.length}
              step={step}
              currency={draft.currency}
              tierName={tier.name}
              tiers={tiers.filter((other) => other.id !== tier.id)}
              problems={problems}
              showEmpty={hasTried}
              onChange={(part) => changeStep(key, part)}
              onRemove={() => setSteps((all) => all.filter((other) => other.key !== key))}
            />
          ))}
        </ol>
        <WholeProblem path="steps" local={problems.steps} />
        {hasTried && !read.ok && (
          <p role="alert" className="font-medium text-closed">
            {desk('desk-tiers.something-in-the-steps-needs')}
          </p>
        )}
        <div className="flex flex-wrap gap-2">
          <Button look="quiet" onClick={() => add('trial')} disabled={hasTrial}>
            {desk('desk-tiers.begin-with-a-trial')}
          </Button>
          <Button look="quiet" onClick={() => add('repeat')}>
            {desk('desk-tiers.add-a-repeating-price')}
          </Button>
          <Button look="quiet" onClick={() => add('once')}>
            {desk('desk-tiers.add-a-single-payment')}
          </Button>
        </div>
        <div className="flex flex-wrap gap-4">
          <AmountField
            name="feeAmount"
            currency={draft.currency}
            label={desk('desk-tiers.joining-fee', { currency: draft.currency })}
            placeholder={desk('desk.none')}
            value={draft.feeAmount}
            problem={problems.joiningFee}
            onChange={(event) => change({ feeAmount: event.target.value })}
            className="w-44"
          />
          <SelectField
            name="feeDue"
            label={desk('desk-tiers.the-fee-is-due')}
            value={draft.feeDue}
            onChange={(event) => change({ feeDue: event.target.value as OfferDraft['feeDue'] })}
            className="w-56"
          >
            <option value="first-payment">{desk('desk-tiers.with-the-first-payment')}</option>
            <option value="start">{desk('desk-tiers.on-joining')}</option>
          </SelectField>
          <SelectField
            name="after"
            label={desk('desk-tiers.after-the-last-step')}
            value={draft.after}
            onChange={(event) => change({ after: event.target.value as OfferDraft['after'] })}
            className="w-56"
          >
            <option value="end">{desk('desk-tiers.it-ends')}</option>
            <option value="keep">{desk('desk-tiers.members-keep-the-tier-for-good')}</option>
          </SelectField>
          {canRenew && (
            <TextField
              name="renewDays"
              label={desk('desk-tiers.renewed-from-days-before-the-end')}
              inputMode="numeric"
              placeholder={desk('desk-tiers.not-renewed')}
              value={draft.renewDays}
              problem={problems.renewal}
              onChange={(event) => change({ renewDays: event.target.value })}
              className="w-72"
            />
          )}
        </div>
        <SchedulePreview offer={read.ok ? read.offer : null} zone={zone} now={now} today={today} />
        {tiers.length > 1 && (
          <HolderPrices
            // An amount is read in the currency: in another, it is typed again.
            key={draft.currency}
            prices={draft.currency === initial.currency ? offer.holderPrices : []}
            currency={draft.currency}
            locale={language}
            tiers={tiers.filter((other) => other.id !== tier.id)}
          />
        )}
        <div className="flex flex-wrap gap-x-10 gap-y-4">
          <CheckField
            name="onSale"
            label={desk('desk-tiers.on-sale')}
            defaultChecked={offer.onSale}
            hint={desk('desk-tiers.otherwise-nobody-can-join-by-it')}
          />
        </div>
        <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
          {offer.id ? desk('desk-tiers.save-the-offer') : desk('desk-tiers.make-the-offer')}
        </SubmitButton>
      </ActionForm>
      <aside aria-label={desk('desk-tiers.as-it-will-look-on')} className="xl:sticky xl:top-6">
        <p className="mb-2 text-muted">{desk('desk-tiers.on-the-join-page')}</p>
        {/* The very card of the join page; here it is only looked at. */}
        <ul inert>
          <JoinCard
            t={t}
            tier={{
              ...tier,
              offers: [
                {
                  id: 'preview',
                  name: name || desk('desk.offer'),
                  price: read.ok ? offerPrice(read.offer, t) : '…',
                  sentence,
                  saving: null,
                },
              ],
            }}
            returnTo="/account"
            state="open"
            note=""
            opens={opens}
          />
        </ul>
      </aside>
    </div>
  );
}

const keyed = (drafts: StepDraft[], prefix: string): KeyedStep[] =>
  drafts.map((draft, index) => ({ key: `${prefix}-${index}`, draft }));

function WholeProblem({ path, local }: { path: string; local?: string }) {
  const found = useProblem(`definition.${path}`) ?? local;
  return found ? (
    <p role="alert" className="font-medium text-closed">
      {found}
    </p>
  ) : null;
}
