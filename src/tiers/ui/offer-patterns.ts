import { newStep, type OfferDraft, type StepDraft } from '@/core/offers/draft';

type Pattern = { name: string; make: () => Partial<OfferDraft> & { steps: StepDraft[] } };

const repeat = (part: Partial<StepDraft> = {}): StepDraft => ({ ...newStep('repeat'), ...part });
const once = (part: Partial<StepDraft> = {}): StepDraft => ({ ...newStep('once'), ...part });

/** What most offers begin as. Every one can be changed afterwards, step by step. */
export const PATTERNS: Pattern[] = [
  { name: 'Free', make: () => ({ steps: [once({ amount: '0', lasts: 'forever' })] }) },
  { name: 'By the month', make: () => ({ steps: [repeat()] }) },
  { name: 'By the year', make: () => ({ steps: [repeat({ unit: 'year' })] }) },
  { name: 'Trial, then by the month', make: () => ({ steps: [newStep('trial'), repeat()] }) },
  { name: 'Cheaper at first', make: () => ({ steps: [repeat({ times: '3' }), repeat()] }) },
  { name: 'Once, for good', make: () => ({ steps: [once({ lasts: 'forever' })] }) },
  { name: 'Once, for a year', make: () => ({ steps: [once()], renewDays: '30' }) },
  { name: 'Once, until a date', make: () => ({ steps: [once({ lasts: 'until' })] }) },
  { name: 'Instalments', make: () => ({ steps: [repeat({ times: '4' })], after: 'keep' }) },
];
