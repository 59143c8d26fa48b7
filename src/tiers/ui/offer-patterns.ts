import { newStep, type OfferDraft, type StepDraft } from '@/core/offers/draft';
import { desk } from '@/words/desk';

type Pattern = { name: string; make: () => Partial<OfferDraft> & { steps: StepDraft[] } };

const repeat = (part: Partial<StepDraft> = {}): StepDraft => ({ ...newStep('repeat'), ...part });
const once = (part: Partial<StepDraft> = {}): StepDraft => ({ ...newStep('once'), ...part });

/** What most offers begin as. Every one can be changed afterwards, step by step. */
export const PATTERNS: Pattern[] = [
  { name: desk('desk-tiers.free'), make: () => ({ steps: [once({ amount: '0', lasts: 'forever' })] }) },
  { name: desk('desk-tiers.by-the-month'), make: () => ({ steps: [repeat()] }) },
  { name: desk('desk-tiers.by-the-year'), make: () => ({ steps: [repeat({ unit: 'year' })] }) },
  { name: desk('desk-tiers.trial-then-by-the-month'), make: () => ({ steps: [newStep('trial'), repeat()] }) },
  { name: desk('desk-tiers.cheaper-at-first'), make: () => ({ steps: [repeat({ times: '3' }), repeat()] }) },
  { name: desk('desk-tiers.once-for-good'), make: () => ({ steps: [once({ lasts: 'forever' })] }) },
  { name: desk('desk-tiers.once-for-a-year'), make: () => ({ steps: [once()], renewDays: '30' }) },
  { name: desk('desk-tiers.once-until-a-date'), make: () => ({ steps: [once({ lasts: 'until' })] }) },
  { name: desk('desk-tiers.instalments'), make: () => ({ steps: [repeat({ times: '4' })], after: 'keep' }) },
];
