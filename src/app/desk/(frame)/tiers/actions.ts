'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { saveOffer } from '@/services/save-offer';
import { saveTier } from '@/services/save-tier';

export async function saveTierAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const id = text(form, 'id');
  const ladder = text(form, 'ladder');
  return forForm(
    () =>
      saveTier(actor, {
        id: id || undefined,
        isNew: !id,
        name: text(form, 'name'),
        description: text(form, 'description'),
        ladder: ladder === 'new' ? text(form, 'newLadder') : ladder,
        onJoinPage: text(form, 'onJoinPage') === 'on',
      }),
    (tier) => {
      if (!id) redirect(`/desk/tiers/${tier.id}`);
      revalidatePath('/desk/tiers', 'layout');
      return { problems: {}, message: 'Saved.' };
    },
  );
}

export async function saveOfferAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const definition = JSON.parse(text(form, 'definition') || 'null') as { tier?: string } | null;
  return forForm(
    () =>
      saveOffer(actor, {
        id: text(form, 'id') || undefined,
        name: text(form, 'name'),
        onSale: text(form, 'onSale') === 'on',
        definition,
      }),
    () => redirect(`/desk/tiers/${definition?.tier ?? ''}`),
  );
}
