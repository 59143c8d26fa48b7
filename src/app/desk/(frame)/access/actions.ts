'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { differences, draftsOf, forForm, text, texts, type FormState } from '@/app/form-state';
import { ruleEditor } from '@/access/services/access-map';
import { coverWords, whenWords, whoWords } from '@/access/ui/rule-words';
import { currentActor } from '@/app/session';
import { applyDraft, draftMembers, previewDraft, undoDraft } from '@/access/services/draft';
import type { DraftPreview } from '@/access/ui/draft-bar';
import { previewRule } from '@/access/services/preview-rule';
import type { RuleImpact } from '@/access/ui/rule-impact';
import { saveAccessDefault, saveOpenWeek } from '@/access/services/site-access';
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

export async function saveAccessDefaultAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { accessDefault: text(form, 'accessDefault'), staysOpen: texts(form, 'staysOpen') };
  return forForm(saveAccessDefault(await currentActor(), input), () =>
    redirect('/desk/access?view=rulebook&saved=1'),
  );
}

export async function saveOpenWeekAction(_: FormState, form: FormData): Promise<FormState> {
  const openWeek = { tier: text(form, 'tier'), from: text(form, 'from'), until: text(form, 'until') };
  const state = await forForm(saveOpenWeek(await currentActor(), { openWeek }), () =>
    redirect('/desk/access?view=rulebook&saved=1'),
  );
  // The fields of the form have their names within the week.
  const problems = Object.entries(state.problems).map(([name, words]) => [
    name.replace('openWeek.', ''),
    words,
  ]);
  return { ...state, problems: Object.fromEntries(problems) as FormState['problems'] };
}

export async function endOpenWeekAction(): Promise<FormState> {
  return forForm(saveOpenWeek(await currentActor(), { openWeek: null }), () =>
    redirect('/desk/access?view=rulebook&saved=1'),
  );
}

/** What a rule that is being written would change; null where it cannot be saved as it is. */
export async function previewRuleAction(draft: unknown): Promise<RuleImpact | null> {
  const found = await previewRule(await currentActor(), draft);
  return found.ok ? found.value : null;
}

/** What a draft of the map would do; null where it cannot be worked out. */
export async function previewDraftAction(paints: unknown): Promise<DraftPreview | null> {
  const found = await previewDraft(await currentActor(), { paints });
  return found.ok ? found.value : null;
}

/** Who would gain or lose by a draft; the first of them. */
export async function draftMembersAction(paints: unknown, which: unknown) {
  const found = await draftMembers(await currentActor(), { paints, which });
  return found.ok ? found.value : [];
}

export async function applyDraftAction(_: FormState, _form: FormData, sent?: unknown): Promise<FormState> {
  const { draft } = draftsOf(sent);
  return forForm(applyDraft(await currentActor(), draft), ({ entry }) => ({
    problems: {},
    message: desk('desk-access.draft-applied'),
    undo: { entry },
  }));
}

export async function undoDraftAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(undoDraft(await currentActor(), { entry: text(form, 'entry') }), () => {
    revalidatePath('/desk/access');
    return { problems: {}, message: desk('desk-access.draft-undone') };
  });
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
