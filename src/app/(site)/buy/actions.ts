'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { buyProduct } from '@/checkout/services/buy-product';

const FIELDS = ['purchaseId', 'productId', 'version', 'accountId', 'cardToken', 'country', 'due'];

export async function buyAction(_: FormState, form: FormData): Promise<FormState> {
  const input = Object.fromEntries(FIELDS.map((field) => [field, text(form, field)]));
  return forForm(buyProduct(await currentActor(), input), ({ purchaseId }) => {
    // What was closed is open now.
    revalidatePath('/', 'layout');
    redirect(`/account/purchases?new=${purchaseId}`);
  });
}
