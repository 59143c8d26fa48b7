import { PAGE_ROLES, type PageRole } from '@/core/content/page-roles';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { ChoiceField } from '@/kit/choice-field';
import { desk } from '@/words/desk';

type Props = {
  roles: { role: PageRole; itemId: string }[];
  pages: { id: string; name: string }[];
  mayWrite: boolean;
  save: FormAction;
};

/** Which pages of the owner's serve as what, in place of the product's own. */
export function RoleList({ roles, pages, mayWrite, save }: Props) {
  return (
    <section className="mt-10 max-w-3xl">
      <h2 className="text-xl">{desk('desk-content.roles')}</h2>
      <p className="mt-1 max-w-prose text-muted">{desk('desk-content.roles-hint')}</p>
      <ul className="mt-3 divide-y divide-line border-y border-line">
        {PAGE_ROLES.map((role) => {
          const itemId = roles.find((one) => one.role === role)?.itemId ?? '';
          const page = pages.find(({ id }) => id === itemId);
          return (
            <li key={role} className="py-3">
              <details>
                <summary className="flex flex-wrap items-baseline gap-x-3">
                  <span className="font-semibold">{desk(`desk-content.role-${role}`)}</span>
                  <span className="text-[0.9375rem] text-muted">
                    {page?.name ?? desk('desk-content.role-none')}
                  </span>
                </summary>
                <p className="mt-2 text-[0.9375rem] text-muted">{desk(`desk-content.role-${role}-hint`)}</p>
                {mayWrite && (
                  <ActionForm
                    key={itemId}
                    action={save}
                    label={desk(`desk-content.role-${role}`)}
                    className="mt-2 flex flex-wrap items-end gap-3"
                  >
                    <input type="hidden" name="role" value={role} />
                    <div className="w-80 max-w-full">
                      <ChoiceField
                        name="itemId"
                        label={desk('desk-content.page')}
                        defaultValue={itemId}
                        options={[{ id: '', name: desk('desk-content.role-none') }, ...pages]}
                      />
                    </div>
                    <SubmitButton look="quiet" busy={desk('desk.saving')}>
                      {desk('desk.save')}
                    </SubmitButton>
                    <FormMessage />
                  </ActionForm>
                )}
              </details>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
