'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { forForm, parseJson, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { copyOffer, copyTier } from '@/services/copy-tier';
import { addJoiningCode, removeJoiningCode } from '@/services/joining-codes';
import { moveToNewest } from '@/services/move-to-version';
import { done, refused, type Result } from '@/services/result';
import { deleteOffer, deleteTier, retireOffer, retireTier } from '@/services/retire-tier';
import { saveJoinFields } from '@/services/save-join-fields';
import { arrangeTiers, saveLadder } from '@/services/save-ladder';
import { saveOffer } from '@/services/save-offer';
import { savePicture } from '@/services/save-picture';
import { saveTier, type TierInput } from '@/services/save-tier';
import type { Actor } from '@/services/actor';

const isOn = (form: FormData, name: string): boolean => text(form, name) === 'on';
const saved = (message = 'Saved.'): FormState => {
  revalidatePath('/desk/tiers', 'layout');
  return { problems: {}, message };
};

export async function saveTierAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const id = text(form, 'id');
  const ladder = text(form, 'ladder') === 'new' ? text(form, 'newLadder') : text(form, 'ladder');
  return forForm(
    async () => {
      if (text(form, 'ladder') === 'new' && !ladder.trim())
        return refused({ newLadder: 'Name the new ladder.' });
      const picture = await chosenPicture(actor, form);
      if (!picture.ok) return picture;
      return saveTier(actor, {
        id: id || undefined,
        isNew: !id,
        version: Number(text(form, 'version')) || undefined,
        name: text(form, 'name'),
        description: parseJson(text(form, 'description')) as TierInput['description'],
        ladder,
        keyCut: parseJson(text(form, 'keyCut')) as TierInput['keyCut'],
        reference: text(form, 'reference'),
        pictureId: picture.value,
        joinWords: parseJson(text(form, 'joinWords')) as TierInput['joinWords'],
        welcomeWords: parseJson(text(form, 'welcomeWords')) as TierInput['welcomeWords'],
        welcomeShown: form.getAll('welcomeShown') as TierInput['welcomeShown'],
        welcomePath: text(form, 'welcomePath'),
        joining: text(form, 'joining') as TierInput['joining'],
        onJoinPage: isOn(form, 'onJoinPage'),
        several: isOn(form, 'several'),
        onSaleFrom: text(form, 'onSaleFrom'),
        onSaleUntil: text(form, 'onSaleUntil'),
        places: text(form, 'places').trim(),
        confirmAddress: isOn(form, 'confirmAddress'),
      });
    },
    (tier) => {
      if (!id) redirect(`/desk/tiers/${tier.id}`);
      return saved();
    },
  );
}

/** The id of a picture chosen in the form; null where it was taken away; undefined where it stays. */
async function chosenPicture(actor: Actor, form: FormData): Promise<Result<string | null | undefined>> {
  const file = form.get('picture');
  if (file instanceof File && file.size > 0) {
    const kept = await savePicture(actor, new Uint8Array(await file.arrayBuffer()), 'picture');
    return kept.ok ? done(kept.value.id) : kept;
  }
  return done(isOn(form, 'pictureGone') ? null : undefined);
}

export async function saveOfferAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const definition = parseJson(text(form, 'definition')) as { tier?: string } | null;
  const id = text(form, 'id');
  return forForm(
    () =>
      saveOffer(actor, {
        id: id || undefined,
        name: text(form, 'name'),
        onSale: isOn(form, 'onSale'),
        menuLabel: text(form, 'menuLabel'),
        seenVersion: Number(text(form, 'version')) || undefined,
        definition,
      }),
    (offer) => {
      revalidatePath('/desk/tiers', 'layout');
      redirect(`/desk/tiers/${definition?.tier ?? ''}/offers/${offer.id}?saved=${offer.version}`);
    },
  );
}

export async function saveLadderAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = {
    id: text(form, 'id'),
    name: text(form, 'name'),
    waitDays: text(form, 'waitDays') || '0',
    creditUnused: isOn(form, 'creditUnused'),
    downAtOnce: isOn(form, 'downAtOnce'),
  };
  return forForm(
    () => saveLadder(actor, input),
    () => saved(),
  );
}

/** The answer is a sentence where the order could not be kept. */
export async function arrangeTiersAction(order: {
  ladderId: string | null;
  tierIds: string[];
}): Promise<string | null> {
  const actor = await currentActor();
  const answer = await forForm(
    () => arrangeTiers(actor, order),
    () => saved(),
  );
  return Object.values(answer.problems)[0] ?? null;
}

/** What can be done with a tier or an offer besides saving it: the button that was pressed says which. */
export async function tierToolAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const [id, tool] = [text(form, 'id'), text(form, 'tool')];
  if (tool === 'copy')
    return forForm(
      () => copyTier(actor, id),
      (copy) => redirect(`/desk/tiers/${copy.id}`),
    );
  if (tool === 'delete')
    return forForm(
      () => deleteTier(actor, id),
      () => redirect('/desk/tiers'),
    );
  return forForm(
    () => retireTier(actor, id, tool === 'retire'),
    () => saved(tool === 'retire' ? 'Retired.' : 'It is back.'),
  );
}

export async function offerToolAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const [id, tierId, tool] = [text(form, 'id'), text(form, 'tierId'), text(form, 'tool')];
  if (tool === 'copy')
    return forForm(
      () => copyOffer(actor, id),
      (copy) => redirect(`/desk/tiers/${copy.tierId}/offers/${copy.id}`),
    );
  if (tool === 'delete')
    return forForm(
      () => deleteOffer(actor, id),
      () => redirect(`/desk/tiers/${tierId}`),
    );
  return forForm(
    () => retireOffer(actor, id, tool === 'retire'),
    () => saved(tool === 'retire' ? 'Retired.' : 'It is back.'),
  );
}

export async function moveMembersAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => moveToNewest(actor, text(form, 'id'), Number(text(form, 'count'))),
    ({ count }) =>
      saved(`${count === 1 ? 'One member moves' : `${count} members move`} at their next period.`),
  );
}

export async function addCodeAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = Object.fromEntries(
    ['tierId', 'code', 'mostUses', 'lastDay'].map((field) => [field, text(form, field)]),
  );
  return forForm(
    () => addJoiningCode(actor, input),
    () => saved('Added.'),
  );
}

export async function removeCodeAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => removeJoiningCode(actor, text(form, 'tierId'), text(form, 'id')),
    () => saved('Removed.'),
  );
}

export async function saveQuestionsAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => saveJoinFields(actor, parseJson(text(form, 'fields'))),
    () => saved(),
  );
}
