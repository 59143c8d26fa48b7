import 'server-only';
import { randomUUID } from 'node:crypto';
import { SiteLink } from '@/kit/site-link';
import { deleteCommentAction, removeCommentAction, writeCommentAction } from '@/app/comment-actions';
import { PageLinks } from '@/app/item-pages';
import { signInAgainOf } from '@/app/form-words';
import { currentActor, shown, siteWords } from '@/app/session';
import { itemComments } from '@/access/services/item-comments';
import { CommentForm } from '@/content/ui/comment-form';
import { CommentList } from '@/content/ui/comment-list';
import { CommentWriter } from '@/content/ui/comment-writer';
import { Sentence } from '@/kit/sentence';

/** The comments of an item, below its text; nothing where the reader may not read them. */
export async function Comments({ itemId, path, page }: { itemId: string; path: string; page: number }) {
  const actor = await currentActor();
  const found = await shown(itemComments(actor, { itemId, page }));
  if (!found) return null;
  const t = await siteWords();
  const { comments, count, pages, mayWrite, isHeld, mayModerate } = found;
  const form = { t, itemId, isHeld, action: writeCommentAction };
  const signIn = `/sign-in?to=${encodeURIComponent(`${path}#comments`)}`;
  const section = (
    <section id="comments" aria-labelledby="comments-title" className="mt-12 scroll-mt-6">
      <h2 id="comments-title" className="text-2xl">
        {t('comment.title', { count })}
      </h2>
      {comments.length === 0 && (
        <p className="mt-3 text-muted">{mayWrite ? t('comment.none') : t('comment.none-yet')}</p>
      )}
      {mayWrite && <CommentForm {...form} formKey={randomUUID()} />}
      {!mayWrite && (
        <p className="mt-3 text-muted">
          {actor.memberId === null ? (
            <Sentence
              words={t('comment.sign-in')}
              parts={{
                link: (words) => (
                  <SiteLink href={signIn} className="font-semibold text-spruce underline">
                    {words}
                  </SiteLink>
                ),
              }}
            />
          ) : (
            t('comment.not-open')
          )}
        </p>
      )}
      <CommentList
        t={t}
        comments={comments}
        reply={mayWrite ? (to) => <CommentForm {...form} replyTo={to} formKey={randomUUID()} /> : null}
        remove={deleteCommentAction}
        moderate={mayModerate ? removeCommentAction : null}
      />
      <PageLinks
        page={page}
        pages={pages}
        at={(n) => `${path}?comments=${n}#comments`}
        label={t('comment.pages')}
      />
    </section>
  );
  if (actor.memberId === null) return section;
  return <CommentWriter again={signInAgainOf(t, '{email}')}>{section}</CommentWriter>;
}
