'use client';

import type { FormAction } from '@/kit/action-form';
import { PaidForm, type Way } from './paid-form';
import type { SubscriptionId } from '@/core/ids';

type Props = { action: FormAction; subscriptionId: SubscriptionId; ways: Way[]; button: string };

/** Another card, or another way to pay. */
export function ChangeMethodForm({ action, subscriptionId, ways, button }: Props) {
  return (
    <PaidForm action={action} label="How it is paid" ways={ways} keptCard={null} button={button}>
      <input type="hidden" name="subscriptionId" value={subscriptionId} />
    </PaidForm>
  );
}
