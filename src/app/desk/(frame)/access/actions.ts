'use server';

import { redirect } from 'next/navigation';
import { forForm, parseJson, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { deleteRule, saveRule } from '@/access/services/save-rule';

export async function saveRuleAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(saveRule(await currentActor(), parseJson(text(form, 'rule'))), () =>
    redirect('/desk/access'),
  );
}

export async function deleteRuleAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(deleteRule(await currentActor(), text(form, 'id')), () => redirect('/desk/access'));
}
