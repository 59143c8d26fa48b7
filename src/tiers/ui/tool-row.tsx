'use client';

import { Copy, PackageOpen, Archive, Trash2, type LucideIcon } from 'lucide-react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import type { TierId } from '@/core/ids';

type Props = {
  action: FormAction;
  what: 'tier' | 'offer';
  id: string;
  tierId?: TierId;
  isRetired: boolean;
  /** Only what nobody ever held is deleted. */
  canDelete: boolean;
};

/** Copy, retire, delete: what is done with a tier or an offer as a whole. */
export function ToolRow({ action, what, id, tierId, isRetired, canDelete }: Props) {
  const tools: { tool: string; words: string; busy: string; icon: LucideIcon }[] = [
    { tool: 'copy', words: `Copy this ${what}`, busy: 'Copying…', icon: Copy },
    isRetired
      ? { tool: 'bring-back', words: 'Bring it back', busy: 'Bringing back…', icon: PackageOpen }
      : { tool: 'retire', words: 'Retire it', busy: 'Retiring…', icon: Archive },
    ...(canDelete ? [{ tool: 'delete', words: 'Delete it', busy: 'Deleting…', icon: Trash2 }] : []),
  ];
  return (
    <ActionForm action={action} label={`What to do with this ${what}`} className="grid gap-2">
      <FormMessage />
      <input type="hidden" name="id" value={id} />
      <input type="hidden" name="tierId" value={tierId ?? ''} />
      <div className="flex flex-wrap gap-2">
        {tools.map(({ tool, words, busy, icon: Icon }) => (
          <SubmitButton
            key={tool}
            name="tool"
            value={tool}
            busy={busy}
            look={tool === 'delete' ? 'bad' : 'quiet'}
          >
            <Icon className="size-4" aria-hidden /> {words}
          </SubmitButton>
        ))}
      </div>
      <p className="text-[0.9375rem] text-muted">
        {isRetired
          ? 'Retired: nobody joins by it any more. Those who hold it keep it.'
          : canDelete
            ? `Nobody has held this ${what}, so it can be deleted.`
            : `Somebody has held this ${what}, so it can be retired but not deleted: their history stays.`}
      </p>
    </ActionForm>
  );
}
