import { GIVEN_RIGHTS, may, RIGHTS_BY_AREA, type Area, type Powers } from '@/core/staff';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, SelectField } from '@/kit/field';
import { PasswordAgain } from '@/people/ui/password-again';
import { rightWords } from '@/people/ui/right-words';
import { desk } from '@/words/desk';

type Category = { id: string; name: string; depth: number };
type Props = { powers: Powers; categories: Category[]; save: FormAction };

/** What a role may do and read. */
export function RoleForm({ powers, categories, save }: Props) {
  return (
    <ActionForm
      action={save}
      label={desk('desk-settings.what-roles-may')}
      className="mt-6 grid max-w-3xl gap-8"
    >
      <input type="hidden" name="role" value={powers.role} />
      <FormMessage />
      <div className="grid grid-cols-1 gap-6 sm:grid-cols-2">
        {(Object.keys(RIGHTS_BY_AREA) as Area[]).map((area) => (
          <fieldset key={area} className="grid content-start gap-2.5">
            <legend className="mb-2 font-display text-lg font-semibold">
              {desk(`desk-settings.area-${area}`)}
            </legend>
            {RIGHTS_BY_AREA[area]
              .filter((right) => GIVEN_RIGHTS.includes(right))
              .map((right) => (
                <CheckField
                  key={right}
                  name={`right:${right}`}
                  label={rightWords(right)}
                  defaultChecked={may(powers, right)}
                />
              ))}
          </fieldset>
        ))}
      </div>
      <fieldset className="grid gap-4">
        <legend className="mb-2 font-display text-lg font-semibold">{desk('desk-settings.reading')}</legend>
        <CheckField
          name="readsAll"
          label={desk('desk-settings.reads-all')}
          hint={desk('desk-settings.reads-all-hint')}
          defaultChecked={powers.readsAll}
        />
      </fieldset>
      {categories.length > 0 && (
        <fieldset>
          <legend className="mb-1 font-display text-lg font-semibold">
            {desk('desk-settings.by-category')}
          </legend>
          <p className="mb-3 max-w-prose text-muted">{desk('desk-settings.by-category-hint')}</p>
          <SelectField
            name="writes"
            label={desk('desk-settings.writes-posts')}
            defaultValue={powers.writesIn === null ? 'all' : 'some'}
          >
            <option value="all">{desk('desk-settings.writes-all')}</option>
            <option value="some">{desk('desk-settings.writes-some')}</option>
          </SelectField>
          <ul className="mt-3 divide-y divide-line border-y border-line">
            {categories.map(({ id, name, depth }) => (
              <li
                key={id}
                className="grid grid-cols-1 gap-x-4 gap-y-1.5 py-2.5 sm:grid-cols-[minmax(0,1fr)_12rem_12rem]"
              >
                <span className="font-semibold" style={{ paddingInlineStart: `${depth * 1.25}rem` }}>
                  {name}
                </span>
                <CheckField
                  name={`writesIn:${id}`}
                  label={desk('desk-settings.may-write-there')}
                  aria-label={desk('desk-settings.may-write-in', { name })}
                  defaultChecked={powers.writesIn?.includes(id) ?? false}
                />
                <CheckField
                  name={`shut:${id}`}
                  label={desk('desk-settings.shut-to-them')}
                  aria-label={desk('desk-settings.shut-in', { name })}
                  defaultChecked={powers.shutFrom.includes(id)}
                />
              </li>
            ))}
          </ul>
        </fieldset>
      )}
      <div className="grid max-w-sm gap-4">
        <PasswordAgain />
        <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
          {desk('desk.save')}
        </SubmitButton>
      </div>
    </ActionForm>
  );
}
