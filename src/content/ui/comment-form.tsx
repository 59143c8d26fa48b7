import { SiteLink } from '@/kit/site-link';
import { MOST_COMMENT } from '@/core/content/comments';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextArea } from '@/kit/field';
import type { Words } from '@/words/words';
import { ShownAs } from './comment-writer';

type Props = {
  t: Words;
  action: FormAction;
  itemId: string;
  /** The comment that is replied to, and the name of its writer. */
  replyTo?: { id: string; name: string };
  /** Of this form, so that one sent twice is one comment. */
  formKey: string;
  isHeld: boolean;
};

/** Writes a comment, or a reply to one. */
export function CommentForm({ t, action, itemId, replyTo, formKey, isHeld }: Props) {
  const label = replyTo ? t('comment.reply-to', { name: replyTo.name }) : t('comment.yours');
  const name = '{name}';
  return (
    <ActionForm action={action} label={label} emptyWhenDone className="mt-3 grid gap-3">
      <input type="hidden" name="item" value={itemId} />
      <input type="hidden" name="replyTo" value={replyTo?.id ?? ''} />
      <input type="hidden" name="formKey" value={formKey} />
      <TextArea name="words" label={label} rows={replyTo ? 3 : 4} maxLength={MOST_COMMENT} required />
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <SubmitButton busy={t('comment.sending')} look={replyTo ? 'quiet' : 'main'}>
          {replyTo ? t('comment.reply') : t('comment.send')}
        </SubmitButton>
        <p className="text-[0.9375rem] text-muted">
          <ShownAs
            known={isHeld ? t('comment.held-hint', { name }) : t('comment.shown-hint', { name })}
            unknown={isHeld ? t('comment.held-hint-unnamed') : t('comment.shown-hint-unnamed')}
            unnamed={t('comment.member')}
          />{' '}
          <SiteLink href="/account/settings" className="underline">
            {t('comment.change-name')}
          </SiteLink>
        </p>
      </div>
      <FormMessage />
    </ActionForm>
  );
}
