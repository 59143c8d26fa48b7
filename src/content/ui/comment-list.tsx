import { Clock } from '@lucide/icons';
import { SiteIcon } from '@/kit/site-icon';
import type { ReactNode } from 'react';
import type { ShownComment } from '@/core/content/comments';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CloseDetails } from '@/kit/close-details';
import type { Words } from '@/words/words';

type Props = {
  t: Words;
  comments: ShownComment[];
  /** The form of a reply; null where the reader may not write. */
  reply: ((to: { id: string; name: string }) => ReactNode) | null;
  remove: FormAction;
  /** Set where the reader is of the staff who approve and remove comments. */
  moderate: FormAction | null;
};

/** Conversations, each a comment and the replies to it. */
export function CommentList({ comments, ...props }: Props) {
  return (
    <ol className="mt-6 grid gap-6">
      {comments.map((comment) => (
        <li key={comment.id} className="border-t border-line pt-5">
          <One comment={comment} {...props} />
          {comment.replies.length > 0 && (
            <ol className="mt-4 grid gap-4 border-l-2 border-line pl-4">
              {comment.replies.map((reply) => (
                <li key={reply.id}>
                  <One comment={reply} {...props} />
                </li>
              ))}
            </ol>
          )}
        </li>
      ))}
    </ol>
  );
}

function One({ t, comment, reply, remove, moderate }: Omit<Props, 'comments'> & { comment: ShownComment }) {
  if (comment.isGone) return <p className="text-muted italic">{t('comment.gone-here')}</p>;
  const name = comment.name || t('comment.member');
  return (
    <article id={`comment-${comment.id}`} className="scroll-mt-6">
      <p className="flex flex-wrap items-baseline gap-x-2 text-[0.9375rem] text-muted">
        <b className="text-base text-ink">{name}</b>
        {comment.isStaff && (
          <span className="rounded-full border border-line px-2 text-sm font-semibold">
            {t('comment.staff')}
          </span>
        )}
        <time dateTime={comment.at}>{t.dateTime(comment.at)}</time>
        {comment.isWaiting && (
          <span className="inline-flex items-center gap-1 font-semibold text-metered">
            <SiteIcon icon={Clock} className="size-4 self-center" aria-hidden /> {t('comment.waiting')}
          </span>
        )}
      </p>
      <p className="mt-1 break-words whitespace-pre-line">{comment.words}</p>
      <div className="mt-1 flex flex-wrap items-start gap-x-5 gap-y-2 text-[0.9375rem]">
        {reply && !comment.isWaiting && (
          <Opens words={t('comment.reply')}>{reply({ id: comment.id, name })}</Opens>
        )}
        {comment.isMine ? (
          <Opens words={t('comment.remove')}>
            <ActionForm
              action={remove}
              label={t('comment.remove')}
              className="mt-2 grid gap-3 rounded-md bg-sunken p-4"
            >
              <p className="font-semibold">{t('comment.remove-confirm')}</p>
              <input type="hidden" name="id" value={comment.id} />
              <div className="flex flex-wrap gap-3">
                <SubmitButton look="bad" busy={t('form.moment')}>
                  {t('comment.remove')}
                </SubmitButton>
                <CloseDetails>{t('signin.not-now')}</CloseDetails>
              </div>
              <FormMessage />
            </ActionForm>
          </Opens>
        ) : (
          moderate && (
            <ActionForm action={moderate} label={t('comment.remove-as-staff')}>
              <input type="hidden" name="id" value={comment.id} />
              <SubmitButton look="text" busy={t('form.moment')}>
                {t('comment.remove-as-staff')}
              </SubmitButton>
              <FormMessage />
            </ActionForm>
          )
        )}
      </div>
    </article>
  );
}

function Opens({ words, children }: { words: string; children: ReactNode }) {
  return (
    <details className="open:basis-full">
      <summary className="w-fit cursor-pointer list-none font-semibold text-spruce underline underline-offset-2">
        {words}
      </summary>
      {children}
    </details>
  );
}
