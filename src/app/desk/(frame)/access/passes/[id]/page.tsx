import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { pageOf } from '@/app/item-pages';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { passEditor, type PassHolder } from '@/access/services/passes';
import { PassForm } from '@/access/ui/pass-form';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { ConfirmAction } from '@/kit/confirm-action';
import { Empty } from '@/kit/empty';
import { CheckField, TextField } from '@/kit/field';
import { Table } from '@/kit/table';
import { Said } from '@/kit/toasts';
import { desk } from '@/words/desk';
import {
  deletePassAction,
  removeSharedPasswordAction,
  revokePassAction,
  savePassAction,
  setSharedPasswordAction,
} from '../actions';

type Props = { params: Promise<{ id: string }>; searchParams: Search };

export const metadata: Metadata = { title: desk('desk-access.pass') };

export default async function PassPage({ params, searchParams }: Props) {
  await requireStaff('set access');
  const [{ id }, { saved, page: asked }] = [await params, await searchOf(searchParams)];
  const page = pageOf(asked);
  const { pass, holders, total, pages } = await shown(passEditor(await currentActor(), { id, page }));
  const at = (n: number): string => `/desk/access/passes/${id}?page=${n}`;
  return (
    <>
      {saved && <Said words={desk('desk-access.pass-saved')} />}
      <p>
        <Link href="/desk/access/passes" className="text-spruce underline">
          {desk('desk-access.passes')}
        </Link>
      </p>
      <div className="mt-1 flex flex-wrap items-baseline gap-x-6 gap-y-1" id="desk-main">
        <h1 className="text-3xl break-words">{pass ? pass.name : desk('desk-access.a-new-pass')}</h1>
        {pass && (
          <Link href={`/desk/access/new?pass=${pass.id}`} className="text-spruce underline">
            {desk('desk-access.open-something-to-it')}
          </Link>
        )}
      </div>
      <div className="mt-5 grid grid-cols-1 items-start gap-8 lg:grid-cols-[minmax(0,1fr)_26rem]">
        <div className="grid min-w-0 grid-cols-1 gap-6">
          <PassForm key={pass?.version} action={savePassAction} pass={pass} />
          {pass && (
            <section>
              <h2 className="mb-3 text-xl">
                {desk('desk-access.who-has-it')} <span className="figures text-muted">{total}</span>
              </h2>
              {holders.length === 0 ? (
                <Empty title={desk('desk-access.no-one-has-it')}>
                  {desk('desk-access.no-one-has-it-hint')}
                </Empty>
              ) : (
                <Holders pass={pass.id} holders={holders} />
              )}
              {pages > 1 && (
                <p className="figures mt-4 flex gap-5">
                  {page > 1 && (
                    <Link href={at(page - 1)} className="text-spruce underline">
                      {desk('desk-members.newer')}
                    </Link>
                  )}
                  <span className="text-muted">
                    {desk('desk-members.page-of', { pageNumber: page, pages })}
                  </span>
                  {page < pages && (
                    <Link href={at(page + 1)} className="text-spruce underline">
                      {desk('desk-members.older')}
                    </Link>
                  )}
                </p>
              )}
            </section>
          )}
        </div>
        {pass && (
          <div className="grid grid-cols-1 gap-6">
            <div className="grid gap-4 rounded-card border border-line bg-surface p-5">
              <h2 className="text-xl">{desk('desk-access.shared-password')}</h2>
              <p className="text-muted">
                {desk(
                  pass.hasPassword ? 'desk-access.shared-password-set' : 'desk-access.shared-password-none',
                )}
              </p>
              <ActionForm
                action={setSharedPasswordAction}
                label={desk('desk-access.shared-password')}
                className="grid gap-3"
                emptyWhenDone
              >
                <input type="hidden" name="id" value={pass.id} />
                <TextField
                  name="password"
                  label={desk('desk-access.new-password')}
                  type="text"
                  autoComplete="off"
                  maxLength={200}
                />
                {pass.hasPassword && (
                  <CheckField name="endsOld" label={desk('desk-access.ends-old')} defaultChecked />
                )}
                <FormMessage />
                <SubmitButton busy={desk('desk.saving')} className="w-fit">
                  {desk(pass.hasPassword ? 'desk-access.change-password' : 'desk-access.set-password')}
                </SubmitButton>
              </ActionForm>
              {pass.hasPassword && (
                <ConfirmAction
                  action={removeSharedPasswordAction}
                  fields={{ id: pass.id }}
                  summary={desk('desk-access.remove-password')}
                  question={desk('desk-access.remove-password-really')}
                  yes={desk('desk-access.yes-remove')}
                  busy={desk('desk.saving')}
                >
                  <CheckField name="endsOld" label={desk('desk-access.ends-all')} defaultChecked />
                </ConfirmAction>
              )}
            </div>
            <div className="flex">
              <ConfirmAction
                action={deletePassAction}
                fields={{ id: pass.id }}
                summary={desk('desk-access.delete-pass')}
                question={desk('desk-access.delete-pass-really', { name: pass.name, count: total })}
                yes={desk('desk-access.yes-delete')}
                busy={desk('desk.deleting')}
              />
            </div>
          </div>
        )}
      </div>
    </>
  );
}

async function Holders({ pass, holders }: { pass: string; holders: PassHolder[] }) {
  const t = await deskWords();
  const nameOf = ({ name, email }: PassHolder): string => name || email || desk('desk-access.a-browser');
  return (
    <Table
      heads={[
        desk('desk-access.holder'),
        desk('desk-access.got-by'),
        desk('desk-access.has-since'),
        desk('desk-access.has-until'),
        '',
      ]}
    >
      {holders.map((holder) => (
        <tr key={holder.id} className="border-t border-line">
          <th scope="row" className="py-2 pr-5 text-left font-semibold break-words">
            {holder.memberId ? (
              <Link href={`/desk/members/${holder.memberId}`} className="hover:underline">
                {nameOf(holder)}
              </Link>
            ) : (
              nameOf(holder)
            )}
          </th>
          <td className="py-2 pr-5">
            {desk(holder.why === 'address' ? 'desk-access.got-by-address' : 'desk-access.got-by-password')}
          </td>
          <td className="py-2 pr-5 text-muted">{t.date(holder.since)}</td>
          <td className="py-2 pr-5 text-muted">{holder.until ? t.until(holder.until) : '–'}</td>
          <td className="py-1 text-right">
            <ConfirmAction
              action={revokePassAction}
              fields={{ pass, id: holder.id }}
              summary={desk('desk-access.revoke')}
              question={desk('desk-access.revoke-really', { who: nameOf(holder) })}
              yes={desk('desk-access.yes-end')}
              busy={desk('desk.saving')}
            />
          </td>
        </tr>
      ))}
    </Table>
  );
}
