import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, TextArea } from '@/kit/field';
import type { MemberId } from '@/core/ids';
import { desk } from '@/words/desk';

type Props = {
  memberId: MemberId;
  notes: { id: string; staffName: string | null; words: string; isShown: boolean; when: string }[];
  /** Null for staff who may look only. */
  actions: { add: FormAction; remove: FormAction } | null;
};

/** What staff wrote about a member: for themselves, or for the member to read in their account. */
export function MemberNotes({ memberId, notes, actions }: Props) {
  return (
    <section aria-label={desk('desk-members.notes')}>
      <h2 className="text-xl">{desk('desk-members.notes')}</h2>
      <ul className="mt-2 grid gap-2">
        {notes.map((note) => (
          <li key={note.id} className="rounded-card border border-line bg-surface p-3">
            <p className="whitespace-pre-line">{note.words}</p>
            <div className="mt-1 flex flex-wrap items-center justify-between gap-2 text-[0.9375rem] text-muted">
              <span>
                {note.staffName && `${note.staffName}, `}
                {note.when} ·{' '}
                {note.isShown ? (
                  <b className="text-later">{desk('desk-members.the-member-reads-it')}</b>
                ) : (
                  desk('desk-members.staff-only')
                )}
              </span>
              {actions && (
                <ActionForm action={actions.remove}>
                  <input type="hidden" name="member" value={memberId} />
                  <input type="hidden" name="note" value={note.id} />
                  <SubmitButton busy="…" look="quiet" className="min-h-8">
                    {desk('desk.take-away')}
                  </SubmitButton>
                  <FormMessage />
                </ActionForm>
              )}
            </div>
          </li>
        ))}
        {notes.length === 0 && <li className="text-muted">{desk('desk-members.none')}</li>}
      </ul>
      {actions && (
        <ActionForm
          action={actions.add}
          label={desk('desk-members.leave-a-note')}
          emptyWhenDone
          className="mt-3 grid gap-3"
        >
          <input type="hidden" name="member" value={memberId} />
          <TextArea name="words" label={desk('desk-members.a-new-note')} rows={2} />
          <CheckField name="isShown" value="yes" label={desk('desk-members.the-member-reads-it-in')} />
          <SubmitButton busy={desk('desk-members.keeping')} look="quiet" className="w-fit">
            {desk('desk-members.add-note')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
    </section>
  );
}
