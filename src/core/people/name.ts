/**
 * Why a text cannot be the name of a person; null where it can. A name appears in emails and their subjects, so it carries
 * no address that a mail program would make a link of, and no line break.
 */
export function nameProblem(name: string): string | null {
  if (name.length > 120) return 'A name has at most 120 characters.';

  if (/[\u0000-\u001f\u007f\u2028\u2029]/.test(name)) return 'A name is one line.';
  if (/[<>@]|:\/\/|\bwww\./i.test(name)) return 'A name holds no address. Type your name alone.';
  if (/[\p{L}\p{N}-]{2,}[.\u3002\uff0e\uff61][\p{L}]{2,}/u.test(name))
    return 'A name holds no address. Put a space after a full stop.';
  return null;
}
