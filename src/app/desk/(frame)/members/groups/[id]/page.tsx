import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { cache } from 'react';
import { pageOf } from '@/app/item-pages';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { groupPage, groupSources } from '@/members/services/groups';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { Confirm } from '@/kit/confirm';
import { Email } from '@/kit/email';
import { Empty } from '@/kit/empty';
import { TextArea, TextField } from '@/kit/field';
import { inputClass } from '@/kit/input-class';
import { Table } from '@/kit/table';
import { desk } from '@/words/desk';
import { GroupSources } from '@/members/ui/group-sources';
import {
  addMembersAction,
  addSourceAction,
  deleteGroupAction,
  removeMemberAction,
  removeSourceAction,
  saveGroupAction,
} from '../actions';

type Props = { params: Promise<{ id: string }>; searchParams: Search };

const pageFor = cache(async (id: string, page: number) => groupPage(await currentActor(), { id, page }));

export async function generateMetadata({ params, searchParams }: Props): Promise<Metadata> {
  const found = await pageFor((await params).id, pageOf((await searchOf(searchParams)).page));
  return { title: found.ok ? found.value.group.name : desk('desk-members.groups') };
}

export default async function GroupPage({ params, searchParams }: Props) {
  const [t, staff] = [await deskWords(), await requireStaff('see members')];
  const page = pageOf((await searchOf(searchParams)).page);
  const { group, members, pages } = await shown(pageFor((await params).id, page));
  const mayManage = staff.may('manage members');
  const filled = await shown(groupSources(await currentActor(), group.id));
  const at = (n: number): string => `/desk/members/groups/${group.id}?page=${n}`;
  return (
    <>
      <p>
        <Link href="/desk/members/groups" className="text-spruce underline">
          {desk('desk-members.groups')}
        </Link>
      </p>
      <div className="mt-1 flex flex-wrap items-baseline gap-3" id="desk-main">
        <h1 className="text-3xl break-words">{group.name}</h1>
        <p className="text-muted">{desk('desk-members.group-count', { count: group.members })}</p>
      </div>
      <div className="mt-5 grid grid-cols-1 items-start gap-10 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <section>
          {members.length === 0 ? (
            <Empty title={desk('desk-members.group-empty')}>{desk('desk-members.addresses-hint')}</Empty>
          ) : (
            <Table
              heads={[
                desk('desk.member'),
                desk('desk-members.email'),
                desk('desk-members.in-the-group-since'),
                '',
              ]}
            >
              {members.map((member) => (
                <tr key={member.id} className="border-t border-line">
                  <th scope="row" className="py-2 pr-5 text-left font-semibold">
                    <Link href={`/desk/members/${member.id}`} className="hover:underline">
                      {member.name || member.email}
                    </Link>
                  </th>
                  <td className="py-2 pr-5">
                    <Email address={member.email} />
                  </td>
                  <td className="py-2 pr-5 text-muted">{t.date(member.addedAt)}</td>
                  <td className="py-1 text-right">
                    {mayManage && (
                      <ActionForm action={removeMemberAction}>
                        <input type="hidden" name="group" value={group.id} />
                        <input type="hidden" name="member" value={member.id} />
                        <button
                          className="text-spruce underline"
                          aria-label={desk('desk-members.take-out-of', { name: member.name || member.email })}
                        >
                          {desk('desk-members.take-out')}
                        </button>
                        <FormMessage />
                      </ActionForm>
                    )}
                  </td>
                </tr>
              ))}
            </Table>
          )}
          {pages > 1 && (
            <p className="figures mt-4 flex gap-5">
              {page > 1 && (
                <Link href={at(page - 1)} className="text-spruce underline">
                  {desk('desk-members.newer')}
                </Link>
              )}
              <span className="text-muted">{desk('desk-members.page-of', { pageNumber: page, pages })}</span>
              {page < pages && (
                <Link href={at(page + 1)} className="text-spruce underline">
                  {desk('desk-members.older')}
                </Link>
              )}
            </p>
          )}
        </section>
        {mayManage && (
          <div className="grid grid-cols-1 gap-6">
            <GroupSources groupId={group.id} {...filled} add={addSourceAction} remove={removeSourceAction} />
            <ActionForm
              action={addMembersAction}
              emptyWhenDone
              label={desk('desk-members.add-members')}
              className="grid gap-4 rounded-card border border-line bg-surface p-5"
            >
              <h2 className="text-xl">{desk('desk-members.add-members')}</h2>
              <input type="hidden" name="id" value={group.id} />
              <TextArea
                name="addresses"
                label={desk('desk-members.addresses')}
                hint={desk('desk-members.addresses-hint')}
                rows={4}
              />
              <label className="grid gap-1.5">
                <span className="font-semibold">{desk('desk-members.csv-file')}</span>
                <input
                  type="file"
                  name="file"
                  accept=".csv,.txt,text/csv,text/plain"
                  className={inputClass}
                />
              </label>
              <SubmitButton busy={desk('desk-members.adding')} className="w-fit">
                {desk('desk-members.add-members')}
              </SubmitButton>
              <FormMessage />
            </ActionForm>
            <ActionForm action={saveGroupAction} className="flex flex-wrap items-end gap-3">
              <input type="hidden" name="id" value={group.id} />
              <TextField
                name="name"
                label={desk('desk-members.group-name')}
                defaultValue={group.name}
                maxLength={60}
                className="flex-1"
              />
              <SubmitButton busy={desk('desk.saving')} look="quiet">
                {desk('desk-members.rename')}
              </SubmitButton>
              <FormMessage />
            </ActionForm>
            <ActionForm action={deleteGroupAction}>
              <input type="hidden" name="id" value={group.id} />
              <Confirm
                summary={desk('desk-members.delete-group')}
                question={desk('desk-members.delete-group-sure', { name: group.name })}
              >
                <SubmitButton busy={desk('desk.deleting')} look="bad">
                  {desk('desk-members.delete-group')}
                </SubmitButton>
              </Confirm>
              <FormMessage />
            </ActionForm>
          </div>
        )}
      </div>
    </>
  );
}
