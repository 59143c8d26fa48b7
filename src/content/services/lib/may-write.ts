import { may, mayWrite, type Powers } from '@/core/staff';
import { NotAllowed } from '@/platform/actor';
import { problem } from '@/words/problems';

type Written = { title: string; type: string; categories: readonly string[] };

/** @throws NotAllowed where one of the items is not for the staff member to write */
export function requireWriting(powers: Powers | null, ...items: Written[]): void {
  const foreign = items.find((item) => !mayWrite(powers, item));
  if (foreign) throw new NotAllowed(problem('item.not-yours', { title: foreign.title }));
}

/** A change to what is out is read at once. @throws NotAllowed */
export function requirePublishing(powers: Powers | null, isOut: boolean): void {
  if (isOut && !may(powers, 'publish')) throw new NotAllowed(problem('item.not-published-by-you'));
}
