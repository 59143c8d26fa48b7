'use server';

import { redirect } from 'next/navigation';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { deleteRule, saveRule } from '@/services/save-rule';

export async function saveRuleAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => saveRule(actor, JSON.parse(text(form, 'rule') || 'null')),
    () => redirect('/desk/access'),
  );
}

export async function deleteRuleAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => deleteRule(actor, text(form, 'id')),
    () => redirect('/desk/access'),
  );
}
