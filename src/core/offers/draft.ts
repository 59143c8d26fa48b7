import { isLocalDate, type Length, type LocalDate, type Unit } from '../instants';
import { inputAmount, parseAmount } from '../money';
import { problemsOf, type ProblemsOf } from '../problem';
import { isRenewable, stepsOver, type Offer, type Step } from './offer';
import { offerSchema } from './offer-schema';

/** A step as it is typed: text where a person types, so that nothing typed is lost while it is not yet right. */
export type StepDraft = {
  kind: Step['kind'];
  amount: string;
  n: string;
  unit: Unit;
  /** For `repeat`: how many payments; '' until cancelled. */
  times: string;
  /** For `once`. */
  lasts: 'length' | 'forever' | 'until';
  until: string;
  tier: string;
};

export type OfferDraft = {
  tier: string;
  currency: string;
  feeAmount: string;
  feeDue: 'start' | 'first-payment';
  steps: StepDraft[];
  after: 'end' | 'keep';
  /** Days before the end from which it can be renewed; '' where it cannot. */
  renewDays: string;
};

export function newStep(kind: Step['kind']): StepDraft {
  const usual = {
    amount: kind === 'trial' ? '0' : '',
    times: '',
    lasts: 'length' as const,
    until: '',
    tier: '',
  };
  return kind === 'trial'
    ? { kind, n: '14', unit: 'day', ...usual }
    : { kind, n: '1', unit: kind === 'once' ? 'year' : 'month', ...usual };
}

/** The offer that a draft means, or what is wrong with it and where. `today` is the site's local date, `locale` how it writes amounts. */
export function readDraft(
  draft: OfferDraft,
  today: LocalDate,
  locale: string,
): { ok: true; offer: Offer } | { ok: false; problems: ProblemsOf } {
  const problems: ProblemsOf = {};
  const amount = (text: string, path: string): number => {
    const parsed = parseAmount(text, draft.currency, locale);
    if (!parsed.ok) problems[path] = parsed.problem;
    return parsed.ok ? parsed.amount : 0;
  };
  const steps = draft.steps.map((step, index) => readStep(step, `steps.${index}`, amount, problems));
  const fee = draft.feeAmount.trim() === '' ? 0 : amount(draft.feeAmount, 'joiningFee');
  const parsed = offerSchema.safeParse({
    tier: draft.tier,
    currency: draft.currency,
    ...(fee > 0 ? { joiningFee: { amount: fee, due: draft.feeDue } } : {}),
    steps,
    after: draft.after,
    ...(draft.renewDays.trim() !== '' && isRenewable({ steps, after: draft.after })
      ? { renewal: { daysBefore: whole(draft.renewDays, 'renewal', problems, 0) } }
      : {}),
  });
  for (const [path, problem] of Object.entries(parsed.error ? problemsOf(parsed.error) : {}))
    problems[path] ??= problem;
  for (const index of stepsOver(steps, today))
    problems[`steps.${index}.until`] ??= { code: 'offer.step-over' };
  return parsed.success && Object.keys(problems).length === 0
    ? { ok: true, offer: parsed.data }
    : { ok: false, problems };
}

function readStep(
  step: StepDraft,
  path: string,
  amount: (text: string, path: string) => number,
  problems: ProblemsOf,
): Step {
  const tier = step.tier || undefined;
  const price = amount(step.amount, `${path}.amount`);
  const length = (): Length => ({ n: whole(step.n, `${path}.n`, problems), unit: step.unit });
  if (step.kind === 'trial') return { kind: 'trial', amount: price, lasts: length(), tier };
  if (step.kind === 'repeat') {
    const times = step.times.trim() === '' ? null : whole(step.times, `${path}.times`, problems);
    return { kind: 'repeat', amount: price, every: length(), times, tier };
  }
  if (step.lasts === 'forever') return { kind: 'once', amount: price, lasts: 'forever', tier };
  if (step.lasts === 'until') {
    if (!step.until) problems[`${path}.until`] = { code: 'offer.last-day' };
    return {
      kind: 'once',
      amount: price,
      lasts: { until: isLocalDate(step.until) ? step.until : '9999-12-31' },
      tier,
    };
  }
  return { kind: 'once', amount: price, lasts: length(), tier };
}

function whole(text: string, path: string, problems: ProblemsOf, least = 1): number {
  const n = Number(text.trim());
  if (text.trim() !== '' && Number.isInteger(n) && n >= least) return n;
  problems[path] = { code: 'number.at-least', values: { least } };
  return least;
}

/** Whether what is typed so far would be an offer that can be renewed. */
export function isRenewableDraft({ steps, after }: Pick<OfferDraft, 'steps' | 'after'>): boolean {
  const last = steps.at(-1);
  return after === 'end' && last?.kind === 'once' && last.lasts === 'length';
}

/** A stored offer as a draft to change, its amounts as a locale writes them. */
export function draftOf(offer: Offer, locale: string): OfferDraft {
  const money = (minor: number): string => inputAmount(minor, offer.currency, locale);
  return {
    tier: offer.tier,
    currency: offer.currency,
    feeAmount: offer.joiningFee ? money(offer.joiningFee.amount) : '',
    feeDue: offer.joiningFee?.due ?? 'first-payment',
    after: offer.after,
    renewDays: offer.renewal ? String(offer.renewal.daysBefore) : '',
    steps: offer.steps.map((step) => {
      const draft: StepDraft = { ...newStep(step.kind), amount: money(step.amount), tier: step.tier ?? '' };
      const length = step.kind === 'repeat' ? step.every : step.lasts;
      if (step.kind === 'repeat') draft.times = step.times === null ? '' : String(step.times);
      if (length === 'forever') return { ...draft, lasts: 'forever' };
      if ('until' in length) return { ...draft, lasts: 'until', until: length.until };
      return { ...draft, n: String(length.n), unit: length.unit };
    }),
  };
}
