import type { Metadata } from 'next';
import { WRITES } from '@/core/staff';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { listTrash } from '@/access/services/content-place';
import { ContentHead } from '@/content/ui/content-head';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { Confirm } from '@/kit/confirm';
import { Empty } from '@/kit/empty';
import { deleteItemsAction, restoreItemAction } from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-content.trash-title') };

export default async function TrashPage() {
  const staff = await requireStaff();
  const [t, mayWrite] = [await deskWords(), WRITES.some(staff.may)];
  const items = await shown(listTrash(await currentActor()));
  return (
    <>
      <ContentHead here="trash" />
      {items.length === 0 ? (
        <div className="mt-6">
          <Empty title={desk('desk-content.trash-empty')}>{desk('desk-content.trash-empty-hint')}</Empty>
        </div>
      ) : (
        <>
          <p className="mt-4 text-muted">{desk('desk-content.trash-hint')}</p>
          <ul className="mt-3 divide-y divide-line border-y border-line">
            {items.map((item) => (
              <li key={item.id} className="flex flex-wrap items-center gap-x-4 gap-y-2 py-2">
                <div className="mr-auto min-w-0">
                  <p className="font-semibold">{item.title}</p>
                  <p className="truncate text-[0.9375rem] text-muted">
                    {[item.path, item.trashedAt && t.dateTime(item.trashedAt)].filter(Boolean).join(' · ')}
                  </p>
                </div>
                {mayWrite && (
                  <>
                    <ActionForm action={restoreItemAction} label={desk('desk-content.restore')}>
                      <input type="hidden" name="id" value={item.id} />
                      <SubmitButton look="quiet" busy={desk('desk.saving')}>
                        {desk('desk-content.restore')}
                      </SubmitButton>
                      <FormMessage />
                    </ActionForm>
                    <Confirm
                      summary={desk('desk-content.delete')}
                      question={desk('desk-content.delete-question', { title: item.title })}
                    >
                      <ActionForm action={deleteItemsAction} label={desk('desk-content.delete')}>
                        <input type="hidden" name="id" value={item.id} />
                        <SubmitButton look="bad" busy={desk('desk.saving')}>
                          {desk('desk-content.delete-for-good')}
                        </SubmitButton>
                        <FormMessage />
                      </ActionForm>
                    </Confirm>
                  </>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
