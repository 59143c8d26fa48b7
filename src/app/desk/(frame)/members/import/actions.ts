'use server';

import { revalidatePath } from 'next/cache';
import { currentActor, deskWords } from '@/app/session';
import { importMembers } from '@/members/services/import-members';

/** Brings in, or only looks through, some lines of a file; what became of each, in words. */
export async function importLinesAction(batch: unknown) {
  const t = await deskWords();
  const imported = await importMembers(await currentActor(), batch);
  if (!imported.ok)
    return { ok: false as const, problem: Object.values(t.problems(imported.problems))[0] ?? '' };
  revalidatePath('/desk/members', 'layout');
  return {
    ok: true as const,
    lines: imported.value.map(({ problem, ...line }) => ({
      ...line,
      words: problem ? t.problem(problem) : '',
    })),
  };
}
