'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { forForm, formProblem, text, ticked, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import {
  addGroupSource,
  addMembersToGroup,
  addMemberToGroup,
  deleteGroup,
  removeGroupSource,
  removeMemberFromGroup,
  saveGroup,
} from '@/members/services/groups';
import { desk } from '@/words/desk';

/** So many unknown addresses are named; the rest are counted. */
const NAMED = 10;

const saved = (message: string) => (): FormState => {
  revalidatePath('/desk/members', 'layout');
  return { problems: {}, message };
};

export async function saveGroupAction(_: FormState, form: FormData): Promise<FormState> {
  const id = text(form, 'id');
  return forForm(saveGroup(await currentActor(), { id, name: text(form, 'name') }), (group) =>
    id ? saved(desk('desk.saved'))() : redirect(`/desk/members/groups/${group.id}`),
  );
}

export async function deleteGroupAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(deleteGroup(await currentActor(), text(form, 'id')), () => redirect('/desk/members/groups'));
}

export async function addMembersAction(_: FormState, form: FormData): Promise<FormState> {
  const file = form instanceof FormData ? form.get('file') : null;
  const addresses = [text(form, 'addresses'), file instanceof File ? await file.text() : ''].join('\n');
  return forForm(
    addMembersToGroup(await currentActor(), { id: text(form, 'id'), addresses }),
    ({ added, already, unknown }) => {
      const named = unknown.slice(0, NAMED).join(', ') + (unknown.length > NAMED ? ' …' : '');
      return saved(
        [
          desk('desk-members.added-report', { added, already }),
          unknown.length > 0 &&
            desk('desk-members.unknown-addresses', { count: unknown.length, addresses: named }),
        ]
          .filter(Boolean)
          .join(' '),
      )();
    },
  );
}

const membership = (form: FormData) => ({ groupId: text(form, 'group'), memberId: text(form, 'member') });

export async function addMemberAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(addMemberToGroup(await currentActor(), membership(form)), saved(desk('desk.saved')));
}

export async function removeMemberAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(removeMemberFromGroup(await currentActor(), membership(form)), saved(desk('desk.removed')));
}

/** The kind, the id and the answer of what was chosen; a choice that cannot be read is none. */
function chosen(typed: string): { kind?: unknown; source?: unknown; value?: unknown } {
  try {
    const [kind, source, value] = JSON.parse(typed.slice(0, 500)) as unknown[];
    return { kind, source, value };
  } catch {
    return {};
  }
}

export async function addSourceAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { ...chosen(text(form, 'source')), groupId: text(form, 'group') };
  // Nothing was chosen yet.
  if (input.kind === undefined) return formProblem('source', 'group.no-source');
  return forForm(
    addGroupSource(await currentActor(), { ...input, takesOut: ticked(form, 'takesOut') ?? false }),
    ({ added }) => saved(desk('desk-members.source-added', { count: added }))(),
  );
}

export async function removeSourceAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { groupId: text(form, 'group'), id: text(form, 'id') };
  return forForm(removeGroupSource(await currentActor(), input), saved(desk('desk.removed')));
}
