'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { draftsOf, forForm, given, text, ticked, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import type { Drafts } from '@/kit/action-form';
import { saveProduct } from '@/tiers/services/products';

const PLACE = '/desk/money/products';

export async function saveProductAction(_: FormState, form: FormData, sent?: Drafts): Promise<FormState> {
  const id = text(form, 'id');
  const input = {
    id: id || null,
    version: text(form, 'version'),
    name: text(form, 'name'),
    sells: text(form, 'sells') || undefined,
    amount: text(form, 'amount'),
    lasts: draftsOf(sent).lasts,
    holderPrices: draftsOf(sent).holderPrices,
    mostDevices: given(form, 'mostDevices'),
    taxKindId: given(form, 'taxKindId'),
    onSale: ticked(form, 'onSale'),
  };
  return forForm(saveProduct(await currentActor(), input), (product) => {
    revalidatePath(PLACE, 'layout');
    redirect(`${PLACE}/${product.id}?saved=1`);
  });
}
