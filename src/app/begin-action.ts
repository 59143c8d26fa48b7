'use server';

import { savePass } from '@/access/services/passes';
import type { Begun, Beginning } from '@/access/ui/opener-picker';
import { currentActor, currentWords } from '@/app/session';
import { saveTier } from '@/billing/services/save-tier';
import { saveGroup } from '@/members/services/groups';

/** Begins a tier, a group or a pass of this name, so that a rule can open something to it at once. The rest is said later. */
export async function beginOpener(kind: Beginning, name: string): Promise<Begun> {
  const actor = await currentActor();
  const made =
    kind === 'tier'
      ? await saveTier(actor, { name, isNew: true })
      : kind === 'group'
        ? await saveGroup(actor, { id: '', name })
        : await savePass(actor, { name });
  if (made.ok) return { id: made.value.id };
  const t = await currentWords();
  return { problem: Object.values(made.problems).map((one) => t.problem(one))[0] ?? '' };
}
