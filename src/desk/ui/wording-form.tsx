import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextArea } from '@/kit/field';
import { desk } from '@/words/desk';

type Props = {
  action: FormAction;
  wording: {
    key: string;
    original: string;
    own: string;
    usual: string;
    hasBranches: boolean;
    fields: string[];
  };
  part: string;
};

/** One sentence of the members' side: as it is, and to be changed. */
export function WordingForm({ action, wording, part }: Props) {
  const { key, original, own, usual, hasBranches, fields } = wording;
  return (
    <li>
      <details>
        <summary className="flex cursor-pointer flex-wrap items-baseline gap-x-3 gap-y-1 py-3">
          <span className="min-w-0 flex-1">{usual}</span>
          {own && (
            <span className="rounded-full bg-metered-wash px-2.5 text-sm text-metered">
              {desk('desk-settings.changed-inline')}
            </span>
          )}
          <span className="text-sm text-muted">{part}</span>
        </summary>
        <ActionForm action={action} label={own || original} className="grid gap-3 pb-4">
          <input type="hidden" name="key" value={key} />
          <FormMessage />
          {own && <p className="text-muted">{desk('desk-settings.original', { original })}</p>}
          <TextArea
            name="words"
            label={desk('desk-settings.your-wording')}
            defaultValue={own || original}
            rows={original.length > 90 ? 4 : 2}
            hint={
              fields.length > 0
                ? [
                    desk('desk-settings.filled-in-for-each-reader', { list: fields.join(', ') }),
                    hasBranches && desk('desk-settings.wording-branches'),
                  ]
                    .filter(Boolean)
                    .join(' ')
                : undefined
            }
          />
          <div className="flex flex-wrap gap-3">
            <SubmitButton busy={desk('desk.saving')}>{desk('desk.save')}</SubmitButton>
            {own && (
              <SubmitButton busy={desk('desk.saving')} look="quiet" name="back" value="yes">
                {desk('desk-settings.use-the-original')}
              </SubmitButton>
            )}
          </div>
        </ActionForm>
      </details>
    </li>
  );
}
