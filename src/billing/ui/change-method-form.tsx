import type { SubscriptionId } from '@/core/ids';
import type { FormAction } from '@/kit/action-form';
import type { Words } from '@/words/speak';
import { PaidForm } from './paid-form';
import { payWords, type Way } from './pay-words';

type Props = { t: Words; action: FormAction; subscriptionId: SubscriptionId; ways: Way[]; button: string };

/** Another card, or another payment method. */
export function ChangeMethodForm({ t, action, subscriptionId, ways, button }: Props) {
  return (
    <PaidForm
      action={action}
      label={t('method.title')}
      ways={ways}
      keptCard={null}
      words={payWords(t, ways, button)}
      button={button}
    >
      <input type="hidden" name="subscriptionId" value={subscriptionId} />
    </PaidForm>
  );
}
