import { Link } from '@/kit/link';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { SelectField } from '@/kit/field';
import type { MemberId } from '@/core/ids';
import { desk } from '@/words/desk';

type Group = { id: string; name: string };
type Props = {
  memberId: MemberId;
  theirs: Group[];
  others: Group[];
  /** Null for staff who may look only. */
  actions: { add: FormAction; remove: FormAction } | null;
};

/** The groups that a member is in. */
export function MemberGroups({ memberId, theirs, others, actions }: Props) {
  return (
    <section aria-label={desk('desk-members.groups')}>
      <h2 className="text-xl">{desk('desk-members.groups')}</h2>
      <ul className="mt-2 flex flex-wrap gap-2">
        {theirs.map((group) => (
          <li
            key={group.id}
            className="flex items-center gap-2 rounded-full border border-line bg-surface px-3 py-1"
          >
            <Link href={`/desk/members/groups/${group.id}`} className="hover:underline">
              {group.name}
            </Link>
            {actions && (
              <ActionForm action={actions.remove} className="flex">
                <input type="hidden" name="group" value={group.id} />
                <input type="hidden" name="member" value={memberId} />
                <button
                  className="text-muted underline hover:text-ink"
                  aria-label={desk('desk-members.remove-from', { group: group.name })}
                >
                  {desk('desk-members.take-out')}
                </button>
              </ActionForm>
            )}
          </li>
        ))}
        {theirs.length === 0 && <li className="text-muted">{desk('desk-members.in-no-group')}</li>}
      </ul>
      {actions && others.length > 0 && (
        <ActionForm action={actions.add} className="mt-3 flex items-end gap-3">
          <input type="hidden" name="member" value={memberId} />
          <SelectField name="group" label={desk('desk-members.put-in-group')} className="flex-1">
            {others.map((group) => (
              <option key={group.id} value={group.id}>
                {group.name}
              </option>
            ))}
          </SelectField>
          <SubmitButton busy={desk('desk.saving')} look="quiet">
            {desk('desk-members.add')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
    </section>
  );
}
