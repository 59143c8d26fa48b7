'use server';

import { revalidatePath } from 'next/cache';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor, deskWords } from '@/app/session';
import { changeMembers, countForChange } from '@/members/services/change-members';
import { deleteMemberView, saveMemberView } from '@/members/services/member-views';
import type { Refusal } from '@/platform/result';
import { desk } from '@/words/desk';

const said = async ({ problems }: Pick<Refusal, 'problems'>): Promise<string> =>
  Object.values((await deskWords()).problems(problems))[0] ?? '';

/** How many members a change would meet, or why it can't be made. */
export async function countForChangeAction(whom: unknown) {
  const counted = await countForChange(await currentActor(), whom);
  return counted.ok
    ? { ok: true as const, count: counted.value.count }
    : { ok: false as const, problem: await said(counted) };
}

/** Changes some of the members; what became of them, and where the next call begins. */
export async function changeMembersAction(input: unknown) {
  const changed = await changeMembers(await currentActor(), input);
  if (!changed.ok) return { ok: false as const, problem: await said(changed) };
  const { refused, ...rest } = changed.value;
  if (rest.next === null) revalidatePath('/desk/members', 'layout');
  return {
    ok: true as const,
    ...rest,
    refused: await Promise.all(
      refused.map(async ({ id, problems }) => ({ id, words: await said({ problems }) })),
    ),
  };
}

export async function saveViewAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { name: text(form, 'name'), query: text(form, 'query') };
  return forForm(saveMemberView(await currentActor(), input), () => {
    revalidatePath('/desk/members');
    return { problems: {}, message: desk('desk.saved') };
  });
}

export async function deleteViewAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(deleteMemberView(await currentActor(), text(form, 'id')), () => {
    revalidatePath('/desk/members');
    return { problems: {}, message: desk('desk.removed') };
  });
}
