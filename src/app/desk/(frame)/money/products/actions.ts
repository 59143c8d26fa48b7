'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { draftsOf, forForm, text, ticked, type FormState } from '@/app/form-state';
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
    mostDevices: text(form, 'mostDevices'),
    taxKindId: text(form, 'taxKindId') || null,
    onSale: ticked(form, 'onSale') ?? false,
  };
  return forForm(saveProduct(await currentActor(), input), (product) => {
    revalidatePath(PLACE, 'layout');
    redirect(`${PLACE}/${product.id}?saved=1`);
  });
}
