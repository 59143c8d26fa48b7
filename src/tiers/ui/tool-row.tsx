'use client';

import { Archive, Copy, PackageOpen, Trash2 } from 'lucide-react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Confirm } from '@/kit/confirm';
import type { TierId } from '@/core/ids';
import { desk } from '@/words/desk';

type Props = {
  action: FormAction;
  what: 'tier' | 'offer';
  id: string;
  name: string;
  tierId?: TierId;
  isRetired: boolean;
  /** Only what nobody has joined with is deleted. */
  canDelete: boolean;
};

/** Copy, retire, delete: what is done with a tier or an offer as a whole. */
export function ToolRow({ action, what, id, name, tierId, isRetired, canDelete }: Props) {
  return (
    <ActionForm
      action={action}
      undo={action}
      label={desk('desk-tiers.this', { what })}
      className="grid gap-2"
    >
      <FormMessage />
      <input type="hidden" name="id" value={id} />
      <input type="hidden" name="tierId" value={tierId ?? ''} />
      <div className="flex flex-wrap gap-2">
        <SubmitButton name="tool" value="copy" busy={desk('desk-tiers.copying')} look="quiet">
          <Copy className="size-4" aria-hidden /> {desk('desk-tiers.copy', { what })}
        </SubmitButton>
        {isRetired ? (
          <SubmitButton name="tool" value="bring-back" busy={desk('desk-tiers.bringing-back')} look="quiet">
            <PackageOpen className="size-4" aria-hidden /> {desk('desk-tiers.bring-back')}
          </SubmitButton>
        ) : (
          <SubmitButton name="tool" value="retire" busy={desk('desk-tiers.retiring')} look="quiet">
            <Archive className="size-4" aria-hidden /> {desk('desk-tiers.retire')}
          </SubmitButton>
        )}
        {canDelete && (
          <Confirm
            summary={
              <>
                <Trash2 className="size-4" aria-hidden /> {desk('desk-tiers.delete')}
              </>
            }
            question={desk('desk-tiers.delete-this-cant-be-undone', { name })}
          >
            <SubmitButton name="tool" value="delete" busy={desk('desk.deleting')} look="bad">
              {desk('desk-tiers.delete-label', { name })}
            </SubmitButton>
          </Confirm>
        )}
      </div>
      <p className="text-[0.9375rem] text-muted">
        {isRetired
          ? desk('desk-tiers.retired-new-members-cant-join')
          : canDelete
            ? desk('desk-tiers.nobody-has-joined-with-this', { what })
            : desk('desk-tiers.members-have-joined-with-this', { what })}
      </p>
    </ActionForm>
  );
}
