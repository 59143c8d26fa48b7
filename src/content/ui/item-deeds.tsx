import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { desk } from '@/words/desk';

type Props = {
  id: string;
  kind: string;
  canCopy: boolean;
  duplicate: FormAction;
  trash: FormAction;
  /** Adds it to the site's menu; null where it is there. */
  toMenu: FormAction | null;
};

/** What is done to an item as a whole. The trash needs no question: what is in it can be restored. */
export function ItemDeeds({ id, kind, canCopy, duplicate, trash, toMenu }: Props) {
  return (
    <div className="mt-8 flex flex-wrap items-start gap-3 border-t border-line pt-5">
      {toMenu && (
        <ActionForm action={toMenu} label={desk('desk-content.to-menu')}>
          <input type="hidden" name="kind" value="item" />
          <input type="hidden" name="target-item" value={id} />
          <SubmitButton look="quiet" busy={desk('desk.saving')}>
            {desk('desk-content.to-menu')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
      {canCopy && (
        <ActionForm action={duplicate} label={desk('desk-content.duplicate')}>
          <input type="hidden" name="id" value={id} />
          <SubmitButton look="quiet" busy={desk('desk.saving')}>
            {desk('desk-content.duplicate')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
      <ActionForm action={trash} label={desk('desk-content.to-trash')}>
        <input type="hidden" name="id" value={id} />
        <input type="hidden" name="kind" value={kind} />
        <SubmitButton look="bad" busy={desk('desk.saving')}>
          {desk('desk-content.to-trash')}
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    </div>
  );
}
