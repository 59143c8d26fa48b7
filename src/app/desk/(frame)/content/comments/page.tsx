import type { Metadata } from 'next';
import { WRITES } from '@/core/staff';
import { Link } from '@/kit/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { searchOf, type Search } from '@/app/search';
import { deskComments } from '@/access/services/moderate-comments';
import { ContentHead } from '@/content/ui/content-head';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { Empty } from '@/kit/empty';
import { Pager, StateChips } from '@/kit/list-bar';
import { moderateCommentsAction } from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-content.comments') };

const PLACE = '/desk/content/comments';

export default async function CommentsPage({ searchParams }: { searchParams: Search }) {
  await requireStaff(...WRITES);
  const asked = await searchOf(searchParams);
  const page = /^[1-9]\d{0,4}$/.test(asked.page ?? '') ? Number(asked.page) : 1;
  const t = await deskWords();
  const found = await shown(
    deskComments(await currentActor(), { state: asked.state, item: asked.item, page }),
  );
  const { rows, state, counts, total } = found;
  const at = (change: Record<string, string>): string =>
    `${PLACE}?${new URLSearchParams({ state, ...(asked.item && { item: asked.item }), ...change })}`;
  return (
    <>
      <ContentHead here="comments" />
      <StateChips
        label={desk('desk-content.comments')}
        chips={counts.map((one) => ({
          href: at({ state: one.state }),
          isHere: one.state === state,
          mark: desk(`desk-content.comment-state-${one.state}`),
          count: one.count,
        }))}
      />
      {rows.length === 0 ? (
        <div className="mt-6">
          <Empty title={desk(`desk-content.no-comments-${state}`)}>
            {desk('desk-content.comments-hint')}
          </Empty>
        </div>
      ) : (
        <>
          {state === 'waiting' && rows.length > 1 && (
            <ActionForm
              action={moderateCommentsAction}
              label={desk('desk-content.approve-these', { count: rows.length })}
              className="mt-4"
            >
              {rows.map(({ id }) => (
                <input key={id} type="hidden" name="id" value={id} />
              ))}
              <SubmitButton look="quiet" name="state" value="shown" busy={desk('desk.saving')}>
                {desk('desk-content.approve-these', { count: rows.length })}
              </SubmitButton>
              <FormMessage />
            </ActionForm>
          )}
          <ul className="mt-4 max-w-4xl divide-y divide-line border-y border-line">
            {rows.map((comment) => (
              <li key={comment.id} className="flex flex-wrap items-start gap-x-6 gap-y-3 py-4">
                <div className="min-w-0 flex-1 basis-80">
                  <p className="text-[0.9375rem] text-muted">
                    {comment.memberId ? (
                      <Link href={`/desk/members/${comment.memberId}`} className="font-semibold underline">
                        {comment.name || desk('desk-content.comment-by-nameless')}
                      </Link>
                    ) : (
                      desk('desk-content.comment-deleted')
                    )}
                    {' · '}
                    <Link href={`${comment.path}#comment-${comment.id}`} className="underline">
                      {comment.title}
                    </Link>
                    {' · '}
                    {t.dateTime(comment.at)}
                    {comment.threadId !== null && ` · ${desk('desk-content.comment-is-reply')}`}
                  </p>
                  <p className="mt-1 break-words whitespace-pre-line">{comment.words}</p>
                </div>
                {comment.memberId !== null && (
                  <ActionForm
                    action={moderateCommentsAction}
                    label={desk('desk-content.comments')}
                    className="flex flex-wrap gap-2"
                  >
                    <input type="hidden" name="id" value={comment.id} />
                    {state !== 'shown' && (
                      <SubmitButton name="state" value="shown" look="quiet" busy={desk('desk.saving')}>
                        {state === 'waiting' ? desk('desk-content.approve') : desk('desk-content.show-again')}
                      </SubmitButton>
                    )}
                    {state !== 'removed' && (
                      <SubmitButton name="state" value="removed" look="bad" busy={desk('desk.saving')}>
                        {desk('desk-content.remove-comment')}
                      </SubmitButton>
                    )}
                    <FormMessage />
                  </ActionForm>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
      <Pager page={page} total={total} rows={found.rowsOnPage} at={(n) => at({ page: String(n) })} />
    </>
  );
}
