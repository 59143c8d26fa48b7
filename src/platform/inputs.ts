import { z } from 'zod';
import { nameProblem } from '@/core/people/name';
import { say } from '@/words/problems';

/** Inputs that many use cases take. */
export const nothing = z.undefined();
export const uuid = z.uuid(say('id.incomplete'));
/** An id that people can read: of a tier, an offer, an item, a rule. */
export const slug = z.string().min(1).max(200);
export const mode = z.enum(['test', 'live']).optional();
/** Search text. */
export const search = z.string().max(200).default('');
/** An address for mail, as the product knows it: without spaces around it, in small letters. */
export const emailAddress = z
  .string()
  .trim()
  .toLowerCase()
  .max(254)
  .pipe(z.email(say('email.unreadable')));
/** The name of a person. */
export const personName = z
  .string()
  .trim()
  .superRefine((name, context) => {
    const problem = nameProblem(name);
    if (problem) context.addIssue({ code: 'custom', message: problem.code, params: problem.values });
  });

/** The caller’s password, confirmed for a sensitive action; empty where it was not typed. */
export const passwordAgain = z.string().max(1000).default('');
