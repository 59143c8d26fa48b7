import type { Problem } from '../problem';

/**
 * Why a text cannot be the name of a person; null where it can. A name appears in emails and their subjects, so it carries
 * no address that a mail program would make a link of, and no line break.
 */
export function nameProblem(name: string): Problem | null {
  if (name.length > 120) return { code: 'text.too-long', values: { most: 120 } };

  if (/[\u0000-\u001f\u007f\u2028\u2029]/.test(name)) return { code: 'name.one-line' };
  if (/[<>@]|:\/\/|\bwww\./i.test(name)) return { code: 'name.address' };
  if (/[\p{L}\p{N}-]{2,}[.\u3002\uff0e\uff61][\p{L}]{2,}/u.test(name)) return { code: 'name.full-stop' };
  return null;
}
