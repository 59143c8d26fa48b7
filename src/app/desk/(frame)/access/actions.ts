'use server';

import { redirect } from 'next/navigation';
import { draftsOf, forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { deleteRule, saveRule } from '@/access/services/save-rule';

export async function saveRuleAction(_: FormState, _form: FormData, sent?: unknown): Promise<FormState> {
  return forForm(saveRule(await currentActor(), draftsOf(sent).rule), () => redirect('/desk/access'));
}

export async function deleteRuleAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(deleteRule(await currentActor(), text(form, 'id')), () => redirect('/desk/access'));
}
