import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, SelectField } from '@/kit/field';
import { desk } from '@/words/desk';

const KINDS = ['tier', 'offer', 'code', 'answer'] as const;
type Choice = { kind: (typeof KINDS)[number]; source: string; value: string; name: string };
type Props = {
  groupId: string;
  choices: Choice[];
  sources: (Omit<Choice, 'name'> & { id: string; name: string | undefined; takesOut: boolean })[];
  add: FormAction;
  remove: FormAction;
};

/** What brings members into a group without staff. */
export function GroupSources({ groupId, choices, sources, add, remove }: Props) {
  return (
    <section className="grid grid-cols-1 gap-4 rounded-card border border-line bg-surface p-5">
      <h2 className="text-xl">{desk('desk-members.fills-itself')}</h2>
      {sources.length > 0 && (
        <ul className="divide-y divide-line border-y border-line">
          {sources.map(({ id, kind, name, source, takesOut }) => (
            <li key={id} className="flex items-center gap-3 py-2">
              <span className="min-w-0 flex-1">
                <b className="[overflow-wrap:anywhere]">{name ?? source}</b>
                <span className="block text-[0.9375rem] text-muted">
                  {desk(`desk-members.source-${kind}`)}
                  {takesOut && `, ${desk('desk-members.leaves-with-it')}`}
                </span>
              </span>
              <ActionForm action={remove}>
                <input type="hidden" name="group" value={groupId} />
                <input type="hidden" name="id" value={id} />
                <button
                  className="text-spruce underline"
                  aria-label={desk('desk-members.remove-source-of', { name: name ?? source })}
                >
                  {desk('desk-members.remove-source')}
                </button>
                <FormMessage />
              </ActionForm>
            </li>
          ))}
        </ul>
      )}
      <ActionForm
        action={add}
        emptyWhenDone
        label={desk('desk-members.fills-itself')}
        className="grid grid-cols-1 gap-3"
      >
        <input type="hidden" name="group" value={groupId} />
        <SelectField
          name="source"
          label={desk('desk-members.members-come-by')}
          hint={desk('desk-members.fills-hint')}
        >
          <option value="">{desk('desk-members.choose-source')}</option>
          {KINDS.map((kind) => {
            const own = choices.filter((one) => one.kind === kind);
            return own.length > 0 ? (
              <optgroup key={kind} label={desk(`desk-members.source-${kind}`)}>
                {own.map(({ source, value, name }) => (
                  <option key={source + value} value={JSON.stringify([kind, source, value])}>
                    {name}
                  </option>
                ))}
              </optgroup>
            ) : null;
          })}
        </SelectField>
        <CheckField
          name="takesOut"
          label={desk('desk-members.takes-out')}
          hint={desk('desk-members.takes-out-hint')}
        />
        <SubmitButton busy={desk('desk.saving')} look="quiet" className="w-fit">
          {desk('desk-members.add-source')}
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    </section>
  );
}
