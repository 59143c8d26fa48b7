'use server';

import { redirect } from 'next/navigation';
import { differences, draftsOf, forForm, text, type FormState } from '@/app/form-state';
import { ruleEditor } from '@/access/services/access-map';
import { coverWords, whenWords, whoWords } from '@/access/ui/rule-words';
import { currentActor } from '@/app/session';
import { previewRule } from '@/access/services/preview-rule';
import type { RuleImpact } from '@/access/ui/rule-impact';
import { deleteRule, restoreRule, saveRule } from '@/access/services/save-rule';
import { desk } from '@/words/desk';

export async function saveRuleAction(_: FormState, form: FormData, sent?: unknown): Promise<FormState> {
  const actor = await currentActor();
  const rule = draftsOf(draftsOf(sent).rule);
  const over = Number(text(form, 'over'));
  const input = over > 0 ? { ...rule, version: over } : rule;
  return forForm(
    saveRule(actor, input),
    () => redirect('/desk/access?saved=1'),
    async () => {
      const found = await ruleEditor(actor, { id: rule.id });
      if (!found.ok || !found.value.rule) return null;
      const { rule: theirs, names } = found.value;
      const yours = { ...theirs, ...(rule as Partial<typeof theirs>) };
      const covers = (of: typeof theirs): string =>
        of.covers.map((cover) => coverWords(cover, names)).join(', ');
      const openTo = (of: typeof theirs): string =>
        of.openTo.map((line) => `${whoWords(line, names)} ${whenWords(line, names)}`.trim()).join(', ');
      return differences(theirs.version, [
        { label: desk('desk.name'), theirs: theirs.name, yours: yours.name },
        { label: desk('desk-access.covers'), theirs: covers(theirs), yours: covers(yours) },
        { label: desk('desk-access.opens-to'), theirs: openTo(theirs), yours: openTo(yours) },
      ]);
    },
  );
}

/** What a rule that is being written would change; null where it cannot be saved as it is. */
export async function previewRuleAction(draft: unknown): Promise<RuleImpact | null> {
  const found = await previewRule(await currentActor(), draft);
  return found.ok ? found.value : null;
}

export async function restoreRuleAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { id: text(form, 'id'), entry: text(form, 'entry') };
  return forForm(restoreRule(await currentActor(), input), ({ id }) =>
    redirect(`/desk/access/${id}?saved=1`),
  );
}

export async function deleteRuleAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(deleteRule(await currentActor(), text(form, 'id')), () => redirect('/desk/access'));
}
