import type { Opener, Rule } from '@/core/access/rule';
import type { Instant } from '@/core/instants';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import type { Words } from '@/words/speak';
import { desk } from '@/words/desk';
import { coverWords, seriesWords, whenWords, whoWords, type Names } from './rule-words';

type PastRule = Omit<Rule, 'id' | 'name' | 'openTo'> & { name: string; openTo?: Opener[] };
type RuleChange = {
  id: string;
  at: Instant;
  by: string;
  /** Null where there was none before, or is none after. */
  before: PastRule | null;
  after: PastRule | null;
};
type Props = { id: string; changes: RuleChange[]; names: Names; t: Words; restore: FormAction };

/** Who changed a rule, when and in what; each change can be undone. */
export function RuleHistory({ id, changes, names, t, restore }: Props) {
  return (
    <details className="group mt-8 max-w-5xl rounded-card border border-line bg-surface p-5">
      <summary className="cursor-pointer text-lg font-semibold">
        {desk('desk-access.history', { count: changes.length })}
      </summary>
      <ol className="mt-3 divide-y divide-line">
        {changes.map((change) => (
          <li key={change.id} className="flex flex-wrap items-start justify-between gap-x-6 gap-y-2 py-3">
            <div className="min-w-0">
              <p className="text-[0.9375rem] text-muted">
                {[t.dateTime(change.at), change.by].filter(Boolean).join(' · ')}
              </p>
              <ul>
                {differences(change, names).map((words) => (
                  <li key={words}>{words}</li>
                ))}
              </ul>
            </div>
            {change.before && (
              <ActionForm action={restore}>
                <input type="hidden" name="id" value={id} />
                <input type="hidden" name="entry" value={change.id} />
                <SubmitButton busy={desk('desk.saving')} look="quiet" className="min-h-8 py-1">
                  {desk('desk-access.undo-change')}
                </SubmitButton>
                <FormMessage />
              </ActionForm>
            )}
          </li>
        ))}
      </ol>
    </details>
  );
}

/** In what a rule differs from before, a sentence for each part. */
function differences({ before, after }: RuleChange, names: Names): string[] {
  if (!before) return [desk('desk-access.was-made')];
  if (!after) return [desk('desk-access.was-deleted')];
  const parts: [string, (rule: PastRule) => string][] = [
    [desk('desk.name'), ({ name }) => name],
    [desk('desk-access.covers'), ({ covers }) => listed(covers.map((cover) => coverWords(cover, names)))],
    [
      desk('desk-access.except'),
      ({ except = [] }) => listed(except.map((cover) => coverWords(cover, names))),
    ],
    [
      desk('desk-access.opens-to'),
      ({ openTo = [] }) =>
        listed(
          openTo.map((line) => [whoWords(line, names), whenWords(line, names)].filter(Boolean).join(' ')),
        ),
    ],
    [desk('desk-access.series'), (rule) => seriesWords(rule) || yesNo(false)],
    [desk('desk-access.the-rule-is-on'), ({ on }) => yesNo(on !== false)],
    [desk('desk-access.also-require'), ({ alsoRequire }) => yesNo(alsoRequire === true)],
  ];
  const said = parts.flatMap(([label, of]) =>
    of(before) === of(after)
      ? []
      : [desk('desk-access.part-changed', { label, before: of(before), after: of(after) })],
  );
  if (JSON.stringify(before.doorstep ?? null) !== JSON.stringify(after.doorstep ?? null))
    said.push(desk('desk-access.doorstep-changed'));
  return said.length > 0 ? said : [desk('desk-access.saved-unchanged')];
}

const listed = (words: string[]): string => words.join(', ') || desk('desk-access.nobody-nothing');
const yesNo = (is: boolean): string => (is ? desk('desk-access.yes') : desk('desk-access.no'));
