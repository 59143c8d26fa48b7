import { z } from 'zod';
import { toMs } from '@/core/instants';
import { hasWork } from '@/core/people/work';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { realNow } from './clock';
import { done, refusedField, type Result } from './result';
import { hashToken, readSigned, sign } from './tokens';

/** Nobody reads and fills in a form within so many ms of its being shown; a program does. */
const LEAST_MS = 1_200;
const MOST_MS = 24 * 3_600_000;
/** One showing of a form is sent a few times at most: again after a mistake, not for a thousand addresses. */
const PER_SHOWING: Limit = { name: 'form:shown', points: 8, seconds: 24 * 3600 };

/** What a public form carries against programs that fill in whatever they find. Without outside services. */
export const guardSchema = z.object({
  /** A hidden field (honeypot): only programs fill it in. */
  website: z.string().max(500).default(''),
  /** When the form was shown, signed. */
  shown: z.string().max(200),
  /** What the page worked out for that moment while it was read. */
  work: z.string().max(20).default(''),
});

/** The signed moment at which a form is shown: now, or some ms ago. */
export const formStamp = (msAgo = 0): string =>
  sign(`${toMs(realNow()) - msAgo}.${crypto.randomUUID().slice(0, 8)}`);

/** Whether a person may have sent the form. */
export async function guardForm({
  website,
  shown,
  work,
}: z.infer<typeof guardSchema>): Promise<Result<null>> {
  const at = Number(readSigned(shown)?.split('.')[0] ?? NaN);
  const passed = toMs(realNow()) - at;
  if (website !== '' || Number.isNaN(at) || passed > MOST_MS) return refusedField('', 'form.old');
  if (passed < LEAST_MS) return refusedField('', 'form.quick');
  if (!hasWork(shown, work)) return refusedField('', 'form.unloaded');
  if ((await spendPoint(PER_SHOWING, hashToken(shown).toString('hex').slice(0, 32))) > 0)
    return refusedField('', 'form.old');
  return done(null);
}
