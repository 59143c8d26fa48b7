import type { Metadata } from 'next';
import { currentActor, siteWords } from '@/app/session';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { mailOffLink } from '@/mail/services/mail-topics';
import { turnMailOffAction } from './actions';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('mail-off.title'),
  robots: { index: false },
});

/** Where the link at the foot of a mail leads. Mail programs open links by themselves, so opening it changes nothing. */
export default async function MailOffPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const [t, link] = [await siteWords(), await mailOffLink(await currentActor(), token)];
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      <h1 className="text-4xl">{t('mail-off.title')}</h1>
      {link.ok ? (
        <ActionForm action={turnMailOffAction} label={t('mail-off.title')} className="mt-5 grid gap-4">
          <p className="text-lg">{t(`mail-off.${link.value.isOn ? 'on' : 'off'}-${link.value.topic}`)}</p>
          <input type="hidden" name="token" value={token} />
          <input type="hidden" name="isOff" value={link.value.isOn ? 'yes' : 'no'} />
          <SubmitButton busy={t('form.saving')} className="w-fit">
            {link.value.isOn ? t('mail-off.turn-off') : t('mail-off.turn-on')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      ) : (
        <p className="mt-5 text-lg">{t('mail-off.bad-link')}</p>
      )}
    </div>
  );
}
