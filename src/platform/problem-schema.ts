import { z } from 'zod';
import type { Problem, Value } from '@/core/problem';
import { isProblemCode, type ProblemCode } from '@/words/problems';

const valueSchema: z.ZodType<Value> = z.lazy(() =>
  z.union([
    z.string(),
    z.number(),
    z.array(z.string()),
    z.object({ amount: z.number(), currency: z.string() }),
    z.object({ code: z.string(), values: z.record(z.string(), valueSchema).optional() }),
  ]),
);

/** A problem as it is stored. */
export const problemSchema: z.ZodType<Problem<ProblemCode>> = z.object({
  code: z.string().refine(isProblemCode),
  values: z.record(z.string(), valueSchema).optional(),
});
