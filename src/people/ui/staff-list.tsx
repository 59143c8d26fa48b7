import { Check } from 'lucide-react';
import { Link } from '@/kit/link';
import { may, RIGHTS, STAFF_ROLES, type Powers, type StaffRole } from '@/core/staff';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Confirm } from '@/kit/confirm';
import { ConfirmAction } from '@/kit/confirm-action';
import { Email } from '@/kit/email';
import { SelectField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';
import { rightWords } from './right-words';
import { PasswordAgain } from './password-again';

type Person = {
  id: string;
  name: string;
  email: string;
  role: StaffRole;
  seen: string;
  isYou: boolean;
  hasCodes: boolean;
  passkeys: number;
};
type Invite = { id: string; email: string; role: StaffRole; until: string };
type Props = {
  staff: Person[];
  invites: Invite[];
  powers: Powers[];
  change: FormAction;
  withdraw: FormAction;
  resetProofs: FormAction;
  invite: FormAction;
};

/** Who runs the site, who is invited to, and what each role may. */
export function StaffList({ staff, invites, powers, change, withdraw, resetProofs, invite }: Props) {
  return (
    <div className="mt-6 grid grid-cols-1 gap-10">
      <section className="max-w-3xl">
        <h2 className="text-xl">{desk('desk-settings.people')}</h2>
        <ul className="mt-3 divide-y divide-line rounded-card border border-line bg-surface">
          {staff.map((person) => (
            <li key={person.id} className="flex flex-wrap items-center gap-x-4 gap-y-2 px-5 py-3.5">
              <span className="min-w-0 flex-1 basis-56">
                <b>{person.name || person.email}</b>
                {person.isYou && <span className="text-muted"> {desk('desk-settings.you')}</span>}
                <span className="block [overflow-wrap:anywhere] text-[0.9375rem] text-muted">
                  <Email address={person.email} />
                </span>
              </span>
              <span className="w-20 font-semibold">{desk(`desk-settings.role-${person.role}`)}</span>
              <span className="w-48 text-[0.9375rem] text-muted">
                {person.seen}
                {person.hasCodes && <span className="block">{desk('desk-settings.has-codes')}</span>}
                {person.passkeys > 0 && (
                  <span className="block">
                    {desk('desk-settings.has-passkeys', { count: person.passkeys })}
                  </span>
                )}
              </span>
              <Confirm
                look="quiet"
                summary={desk('desk-settings.change-role')}
                question={desk('desk-settings.change-role-of', { name: person.name || person.email })}
              >
                <ActionForm action={change} className="grid w-full max-w-sm grid-cols-1 gap-3">
                  <input type="hidden" name="member" value={person.id} />
                  <RoleField value={person.role} canLeave />
                  <PasswordAgain />
                  <FormMessage />
                  <SubmitButton busy={desk('desk.saving')} className="w-fit">
                    {desk('desk.save')}
                  </SubmitButton>
                </ActionForm>
                {(person.hasCodes || person.passkeys > 0) && !person.isYou && (
                  <ActionForm
                    action={resetProofs}
                    className="mt-4 grid w-full max-w-sm grid-cols-1 gap-3 border-t border-line pt-4"
                  >
                    <p>{desk('desk-settings.reset-proofs-sure')}</p>
                    <input type="hidden" name="member" value={person.id} />
                    <PasswordAgain />
                    <FormMessage />
                    <SubmitButton busy={desk('desk.saving')} look="bad" className="w-fit">
                      {desk('desk-settings.reset-proofs')}
                    </SubmitButton>
                  </ActionForm>
                )}
              </Confirm>
            </li>
          ))}
          {invites.map((one) => (
            <li key={one.id} className="flex flex-wrap items-center gap-x-4 gap-y-2 px-5 py-3.5">
              <span className="min-w-0 flex-1 basis-56 [overflow-wrap:anywhere] text-muted">
                <Email address={one.email} />
              </span>
              <span className="w-20 font-semibold text-muted">{desk(`desk-settings.role-${one.role}`)}</span>
              <span className="w-48 text-[0.9375rem] text-muted">
                {desk('desk-settings.invited-until', { date: one.until })}
              </span>
              <ConfirmAction
                action={withdraw}
                fields={{ id: one.id }}
                summary={desk('desk-settings.withdraw')}
                question={desk('desk-settings.withdraw-sure', { email: one.email })}
                yes={desk('desk-settings.withdraw-yes')}
                busy={desk('desk.one-moment')}
              />
            </li>
          ))}
        </ul>
      </section>
      <section className="max-w-md">
        <h2 className="text-xl">{desk('desk-settings.invite')}</h2>
        <ActionForm
          action={invite}
          label={desk('desk-settings.invite')}
          className="mt-3 grid grid-cols-1 gap-4"
          emptyWhenDone
        >
          <FormMessage />
          <TextField
            name="email"
            label={desk('desk-settings.invite-email')}
            type="email"
            autoComplete="off"
          />
          <RoleField value="editor" />
          <PasswordAgain />
          <SubmitButton busy={desk('desk-settings.inviting')} className="w-fit px-8">
            {desk('desk-settings.invite-send')}
          </SubmitButton>
        </ActionForm>
      </section>
      <section className="max-w-3xl">
        <h2 className="text-xl">{desk('desk-settings.what-roles-may')}</h2>
        <div className="relative mt-3 overflow-x-auto">
          <table className="held-column w-full min-w-[34rem]">
            <thead>
              <tr className="text-left text-muted">
                <th scope="col" className="py-2 pr-5 font-semibold">
                  {desk('desk-settings.right')}
                </th>
                {powers.map(({ role }) => (
                  <th key={role} scope="col" className="w-24 py-2 text-center font-semibold">
                    {role === 'owner' ? (
                      desk(`desk-settings.role-${role}`)
                    ) : (
                      <Link href={`/desk/settings/staff/${role}`} className="text-spruce underline">
                        {desk(`desk-settings.role-${role}`)}
                      </Link>
                    )}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {RIGHTS.map((right) => (
                <Row key={right} name={rightWords(right)} has={powers.map((one) => may(one, right))} />
              ))}
              <Row name={desk('desk-settings.reads-all')} has={powers.map(({ readsAll }) => readsAll)} />
            </tbody>
          </table>
        </div>
      </section>
    </div>
  );
}

function Row({ name, has }: { name: string; has: boolean[] }) {
  return (
    <tr className="border-t border-line">
      <th scope="row" className="py-2 pr-5 text-left font-normal">
        {name}
      </th>
      {has.map((may, n) => (
        <td key={STAFF_ROLES[n]} className="py-2 text-center">
          {may ? (
            <Check className="inline size-5 text-open" aria-label={desk('desk-settings.may')} />
          ) : (
            <span className="text-muted" aria-label={desk('desk-settings.may-not')}>
              –
            </span>
          )}
        </td>
      ))}
    </tr>
  );
}

function RoleField({ value, canLeave = false }: { value: StaffRole; canLeave?: boolean }) {
  return (
    <SelectField name="role" label={desk('desk-settings.role')} defaultValue={value}>
      {STAFF_ROLES.map((role) => (
        <option key={role} value={role}>
          {desk(`desk-settings.role-${role}`)}: {desk(`desk-settings.role-hint-${role}`)}
        </option>
      ))}
      {canLeave && <option value="">{desk('desk-settings.role-none')}</option>}
    </SelectField>
  );
}
