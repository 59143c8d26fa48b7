import { Link } from '@/kit/link';
import { X } from 'lucide-react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import { desk } from '@/words/desk';

type Props = {
  views: { id: string; name: string; query: string }[];
  /** What is in the address now, without a page. */
  here: string;
  save: FormAction;
  remove: FormAction;
};

/** The filters that were saved under a name, and a way to save this one. */
export function MemberViews({ views, here, save, remove }: Props) {
  if (views.length === 0 && here === '') return null;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-2">
      {views.length > 0 && (
        <ul className="flex flex-wrap gap-2" aria-label={desk('desk-members.views')}>
          {views.map((view) => (
            <li
              key={view.id}
              className="flex items-center gap-1 rounded-full border border-line bg-surface py-0.5 pr-1 pl-3"
            >
              <Link
                href={`/desk/members?${view.query}`}
                aria-current={view.query === here ? 'true' : undefined}
                className="hover:underline aria-[current]:font-semibold"
              >
                {view.name}
              </Link>
              <ActionForm action={remove} className="flex">
                <input type="hidden" name="id" value={view.id} />
                <button
                  aria-label={desk('desk-members.view-remove', { name: view.name })}
                  className="grid size-7 place-items-center rounded-full text-muted hover:bg-sunken hover:text-ink"
                >
                  <X className="size-4" aria-hidden />
                </button>
              </ActionForm>
            </li>
          ))}
        </ul>
      )}
      {here !== '' && !views.some(({ query }) => query === here) && (
        <details className="open:basis-full">
          <summary className="cursor-pointer text-spruce">{desk('desk-members.view-save')}</summary>
          <ActionForm action={save} className="mt-2 flex flex-wrap items-end gap-3">
            <input type="hidden" name="query" value={here} />
            <TextField name="name" label={desk('desk-members.view-name')} autoComplete="off" maxLength={60} />
            <SubmitButton busy={desk('desk.saving')} look="quiet">
              {desk('desk.save')}
            </SubmitButton>
            <FormMessage />
          </ActionForm>
        </details>
      )}
    </div>
  );
}
