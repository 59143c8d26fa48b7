import 'server-only';
import type { StartWords } from '@/checkout/ui/start-form';
import type { Words } from '@/words/words';

/** What the form says in which a visitor gives an address. `label`: what it is for. */
export const startWords = (
  t: Words,
  label: 'site.join' | 'buy.title' | 'code.title' | 'register.title' = 'site.join',
): StartWords => ({
  label: t(label),
  empty: t('checkout.leave-empty'),
  email: t('checkout.email'),
  hint: t('checkout.email-hint'),
  busy: t('checkout.sending-code'),
  button: t('signin.continue'),
  noScript: t('checkout.no-script'),
  havePassword: t('checkout.have-password'),
  signIn: t('site.sign-in'),
});
