import { z } from 'zod';
import { realNow } from './clock';
import { refusedField, type Result, done } from './result';
import { readSigned, sign } from './tokens';
import { toMs } from '@/core/calendar';

/** Nobody reads and fills in a form within so many ms of its being shown; a program does. */
const LEAST_MS = 1_200;
const MOST_MS = 24 * 3_600_000;

/** What a public form carries against programs that fill in whatever they find. Without outside services. */
export const guardSchema = z.object({
  /** A field that people do not see: whoever fills it in is no person. */
  website: z.string().max(500).default(''),
  /** When the form was shown, signed. */
  shown: z.string().max(200),
});

/** The signed moment at which a form is shown: now, or some ms ago. */
export const formStamp = (msAgo = 0): string => sign(String(toMs(realNow()) - msAgo));

/** Whether a person may have sent the form; the sentence says what to do for one who did. */
export function guardForm({ website, shown }: z.infer<typeof guardSchema>): Result<null> {
  const at = Number(readSigned(shown) ?? NaN);
  const passed = toMs(realNow()) - at;
  if (website !== '' || Number.isNaN(at) || passed > MOST_MS)
    return refusedField('', 'This form is too old to be sent. Load the page again; nothing was charged.');
  if (passed < LEAST_MS)
    return refusedField(
      '',
      'That was quick. Wait a second, then press the button again; what you typed stays.',
    );
  return done(null);
}
