'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import {
  differences,
  draftsOf,
  forForm,
  formProblem,
  given,
  text,
  texts,
  ticked,
  versionOf,
  type FormState,
} from '@/app/form-state';
import { currentActor, siteWords } from '@/app/session';
import { plainText, proseSchema } from '@/core/content/prose';
import { offerSchema } from '@/core/offers/offer-schema';
import { offerEditor, tierDetail } from '@/desk/services/tier-overview';
import { offerSentence } from '@/words/offers';
import { copyOffer, copyTier } from '@/tiers/services/copy-tier';
import { addJoiningCode } from '@/tiers/services/codes';
import { moveToNewest } from '@/billing/services/move-to-version';
import { deleteOffer, deleteTier } from '@/desk/services/delete-tier';
import { retireOffer, retireTier } from '@/tiers/services/retire-tier';
import { saveJoinFields } from '@/tiers/services/save-join-fields';
import { arrangeTiers, saveLadder } from '@/tiers/services/save-ladder';
import { saveOffer } from '@/tiers/services/save-offer';
import { saveTier } from '@/billing/services/save-tier';
import type { TierId } from '@/core/ids';
import { desk } from '@/words/desk';

const isOn = (form: FormData, name: string): boolean => text(form, name) === 'on';
const saved = (message = desk('desk.saved')): FormState => {
  revalidatePath('/desk/tiers', 'layout');
  return { problems: {}, message };
};

export async function saveTierAction(_: FormState, form: FormData, sent?: unknown): Promise<FormState> {
  const drafts = draftsOf(sent);
  const id = text(form, 'id');
  const isNewLadder = text(form, 'ladder') === 'new';
  if (isNewLadder && !text(form, 'newLadder').trim()) return formProblem('newLadder', 'ladder.no-new-name');
  const input = {
    id: id || undefined,
    isNew: !id,
    version: versionOf(form),
    name: text(form, 'name'),
    description: drafts.description,
    ladder: isNewLadder ? text(form, 'newLadder') : given(form, 'ladder'),
    keyCut: drafts.keyCut,
    reference: given(form, 'reference'),
    pictureId: isOn(form, 'pictureGone') ? null : text(form, 'pictureId') || undefined,
    joinWords: drafts.joinWords,
    welcomeWords: drafts.welcomeWords,
    welcomeShown: form.has('has:welcomeShown') ? texts(form, 'welcomeShown') : undefined,
    welcomePath: given(form, 'welcomePath'),
    joining: given(form, 'joining'),
    onJoinPage: ticked(form, 'onJoinPage'),
    several: ticked(form, 'several'),
    onSaleFrom: given(form, 'onSaleFrom'),
    onSaleUntil: given(form, 'onSaleUntil'),
    places: given(form, 'places')?.trim(),
  };
  const actor = await currentActor();
  return forForm(
    saveTier(actor, input),
    (tier) => {
      if (!id) redirect(`/desk/tiers/${tier.id}`);
      return saved();
    },
    async () => {
      const found = await tierDetail(actor, id);
      const theirs = found.ok ? found.value.tier : null;
      const prose = (sent: unknown): string => {
        const read = proseSchema.safeParse(sent);
        return read.success ? plainText(read.data) : '';
      };
      return differences(theirs?.version, [
        { label: desk('desk.name'), theirs: theirs?.name ?? '', yours: input.name },
        {
          label: desk('desk-tiers.description'),
          theirs: prose(theirs?.description),
          yours: prose(input.description),
        },
        {
          label: desk('desk-tiers.on-the-join-form'),
          theirs: prose(theirs?.joinWords),
          yours: prose(input.joinWords),
        },
        {
          label: desk('desk-tiers.after-joining'),
          theirs: prose(theirs?.welcomeWords),
          yours: prose(input.welcomeWords),
        },
        { label: desk('desk.joining'), theirs: theirs?.joining ?? '', yours: input.joining ?? '' },
        {
          label: desk('desk-tiers.places'),
          theirs: theirs?.places?.toString() ?? '',
          yours: input.places ?? '',
        },
      ]);
    },
  );
}

export async function saveOfferAction(_: FormState, form: FormData, sent?: unknown): Promise<FormState> {
  const [actor, t] = [await currentActor(), await siteWords()];
  const [id, name] = [text(form, 'id'), text(form, 'name')];
  const { definition, holderPrices } = draftsOf(sent);
  return forForm(
    saveOffer(actor, {
      id,
      name,
      onSale: ticked(form, 'onSale'),
      seenVersion: versionOf(form),
      definition,
      holderPrices,
    }),
    (offer) => {
      revalidatePath('/desk/tiers', 'layout');
      redirect(`/desk/tiers/${offer.tierId}/offers/${offer.id}?saved=${offer.version}`);
    },
    async () => {
      const yours = offerSchema.safeParse(definition);
      const found = yours.success ? await offerEditor(actor, { tierId: yours.data.tier, offerId: id }) : null;
      const theirs = found?.ok ? found.value.offer : null;
      return differences(theirs?.version, [
        { label: desk('desk.name'), theirs: theirs?.name ?? '', yours: name },
        {
          label: desk('desk-tiers.price'),
          theirs: theirs ? offerSentence(theirs.definition, t) : '',
          yours: yours.success ? offerSentence(yours.data, t) : '',
        },
      ]);
    },
  );
}

export async function saveLadderAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    id: text(form, 'id'),
    name: text(form, 'name'),
    waitDays: text(form, 'waitDays') || '0',
    creditUnused: ticked(form, 'creditUnused'),
    downAtOnce: ticked(form, 'downAtOnce'),
  };
  return forForm(saveLadder(await currentActor(), input), () => saved());
}

/** The answer is a sentence where the order could not be kept. */
export async function arrangeTiersAction(order: {
  ladderId: string | null;
  tierIds: TierId[];
}): Promise<string | null> {
  const answer = await forForm(arrangeTiers(await currentActor(), order), () => saved());
  return Object.values(answer.problems)[0] ?? null;
}

/** That something was retired or brought back, and what takes that back. */
const retired = (form: FormData, isRetired: boolean): FormState => ({
  ...saved(isRetired ? desk('desk-tiers.retired') : desk('desk-tiers.brought-back')),
  undo: {
    id: text(form, 'id'),
    tierId: text(form, 'tierId'),
    tool: isRetired ? 'bring-back' : 'retire',
  },
});

/** What can be done with a tier or an offer besides saving it: the button that was pressed says which. */
export async function tierToolAction(_: FormState, form: FormData): Promise<FormState> {
  const [id, tool] = [text(form, 'id'), text(form, 'tool')];
  if (tool === 'copy')
    return forForm(copyTier(await currentActor(), id), (copy) => redirect(`/desk/tiers/${copy.id}`));
  if (tool === 'delete') return forForm(deleteTier(await currentActor(), id), () => redirect('/desk/tiers'));
  return forForm(retireTier(await currentActor(), { id, isRetired: tool === 'retire' }), () =>
    retired(form, tool === 'retire'),
  );
}

export async function offerToolAction(_: FormState, form: FormData): Promise<FormState> {
  const [id, tierId, tool] = [text(form, 'id'), text(form, 'tierId'), text(form, 'tool')];
  if (tool === 'copy')
    return forForm(copyOffer(await currentActor(), id), (copy) =>
      redirect(`/desk/tiers/${copy.tierId}/offers/${copy.id}`),
    );
  if (tool === 'delete')
    return forForm(deleteOffer(await currentActor(), id), () => redirect(`/desk/tiers/${tierId}`));
  return forForm(retireOffer(await currentActor(), { id, isRetired: tool === 'retire' }), () =>
    retired(form, tool === 'retire'),
  );
}

export async function moveMembersAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    moveToNewest(await currentActor(), { offerId: text(form, 'id'), count: text(form, 'count') }),
    ({ count }) => saved(desk('desk-tiers.members-move', { count })),
  );
}

export async function addCodeAction(_: FormState, form: FormData): Promise<FormState> {
  const input = Object.fromEntries(
    ['tierId', 'code', 'mostUses', 'lastDay'].map((field) => [field, text(form, field)]),
  );
  return forForm(addJoiningCode(await currentActor(), input), () => saved(desk('desk-tiers.added')));
}

export async function saveQuestionsAction(_: FormState, _form: FormData, sent?: unknown): Promise<FormState> {
  return forForm(saveJoinFields(await currentActor(), draftsOf(sent).fields), () => saved());
}
