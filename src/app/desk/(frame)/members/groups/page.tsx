import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, requireStaff, shown } from '@/app/session';
import { groupsPlace } from '@/members/services/groups';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { Empty } from '@/kit/empty';
import { TextField } from '@/kit/field';
import { MembersTabs } from '@/members/ui/members-tabs';
import { desk } from '@/words/desk';
import { saveGroupAction } from './actions';

export const metadata: Metadata = { title: desk('desk-members.groups') };

export default async function GroupsPage() {
  const staff = await requireStaff('see members');
  const groups = await shown(groupsPlace(await currentActor()));
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
        <h1 className="text-3xl">{desk('desk-members.groups')}</h1>
        <MembersTabs here="groups" />
      </div>
      <p className="mt-2 max-w-prose text-muted">{desk('desk-members.groups-intro')}</p>
      {groups.length === 0 ? (
        <div className="mt-5 max-w-3xl">
          <Empty title={desk('desk-members.no-groups-yet')}>{desk('desk-members.no-groups-hint')}</Empty>
        </div>
      ) : (
        <ul className="mt-5 max-w-3xl divide-y divide-line rounded-card border border-line bg-surface">
          {groups.map((group) => (
            <li key={group.id} className="grid gap-x-6 px-5 py-3.5 sm:grid-cols-[1fr_8rem_1.4fr]">
              <Link href={`/desk/members/groups/${group.id}`} className="font-semibold hover:underline">
                {group.name}
              </Link>
              <span className="figures text-muted">
                {desk('desk-members.group-count', { count: group.members })}
              </span>
              <span className="text-muted">
                {group.rules.length === 0
                  ? desk('desk-members.group-no-rules')
                  : `${desk('desk-members.group-opens')} ${group.rules.map(({ name }) => `“${name}”`).join(', ')}`}
              </span>
            </li>
          ))}
        </ul>
      )}
      {staff.may('manage members') && (
        <ActionForm action={saveGroupAction} className="mt-6 flex max-w-3xl flex-wrap items-end gap-3">
          <TextField
            name="name"
            label={desk('desk-members.group-name')}
            maxLength={60}
            className="w-full sm:w-80"
          />
          <SubmitButton busy={desk('desk.saving')}>{desk('desk-members.make-group')}</SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
    </>
  );
}
