'use client';

import { Archive, Copy, PackageOpen, Trash2 } from 'lucide-react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Confirm } from '@/kit/confirm';
import type { TierId } from '@/core/ids';

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
    <ActionForm action={action} undo={action} label={`This ${what}`} className="grid gap-2">
      <FormMessage />
      <input type="hidden" name="id" value={id} />
      <input type="hidden" name="tierId" value={tierId ?? ''} />
      <div className="flex flex-wrap gap-2">
        <SubmitButton name="tool" value="copy" busy="Copying…" look="quiet">
          <Copy className="size-4" aria-hidden /> Copy {what}
        </SubmitButton>
        {isRetired ? (
          <SubmitButton name="tool" value="bring-back" busy="Bringing back…" look="quiet">
            <PackageOpen className="size-4" aria-hidden /> Bring back
          </SubmitButton>
        ) : (
          <SubmitButton name="tool" value="retire" busy="Retiring…" look="quiet">
            <Archive className="size-4" aria-hidden /> Retire
          </SubmitButton>
        )}
        {canDelete && (
          <Confirm
            summary={
              <>
                <Trash2 className="size-4" aria-hidden /> Delete…
              </>
            }
            question={`Delete ${name}? This can’t be undone.`}
          >
            <SubmitButton name="tool" value="delete" busy="Deleting…" look="bad">
              Delete {name}
            </SubmitButton>
          </Confirm>
        )}
      </div>
      <p className="text-[0.9375rem] text-muted">
        {isRetired
          ? 'Retired: new members can’t join with it. Members who have it keep it.'
          : canDelete
            ? `Nobody has joined with this ${what}, so it can be deleted.`
            : `Members have joined with this ${what}, so it can be retired but not deleted: their history stays.`}
      </p>
    </ActionForm>
  );
}
