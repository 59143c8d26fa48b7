'use server';

import { redirect } from 'next/navigation';
import { differences, draftsOf, forForm, text, type FormState } from '@/app/form-state';
import { ruleEditor } from '@/access/services/access-map';
import { coverWords, whenWords, whoWords, type Names } from '@/access/ui/rule-words';
import { currentActor } from '@/app/session';
import { deleteRule, saveRule } from '@/access/services/save-rule';
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
      const found = await ruleEditor(actor, rule.id);
      if (!found.ok || !found.value.rule) return null;
      const { rule: theirs, items, categories, tiers } = found.value;
      const names: Names = {
        items: new Map(items.map(({ id, title }) => [id, title])),
        categories: new Map(categories.map(({ id, name }) => [id, name])),
        tiers: new Map(tiers.map(({ id, name }) => [id, name])),
      };
      const yours = { ...theirs, ...(rule as Partial<typeof theirs>) };
      const covers = (of: typeof theirs): string =>
        of.covers.map((cover) => coverWords(cover, names)).join(', ');
      const openTo = (of: typeof theirs): string =>
        of.openTo.map((line) => `${whoWords(line, names)} ${whenWords(line)}`.trim()).join(', ');
      return differences(theirs.version, [
        { label: desk('desk.name'), theirs: theirs.name, yours: yours.name },
        { label: desk('desk-access.covers'), theirs: covers(theirs), yours: covers(yours) },
        { label: desk('desk-access.opens-to'), theirs: openTo(theirs), yours: openTo(yours) },
      ]);
    },
  );
}

export async function deleteRuleAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(deleteRule(await currentActor(), text(form, 'id')), () => redirect('/desk/access'));
}
