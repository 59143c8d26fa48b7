import type { Metadata } from 'next';
import { currentActor, currentSite, shown, siteWords } from '@/app/session';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { SiteLinkButton } from '@/kit/site-link';
import { mailLink } from '@/members/services/ask-for-mails';
import { confirmMailsAction } from '../actions';

export async function generateMetadata(): Promise<Metadata> {
  const [t, { name }] = [await siteWords(), await currentSite()];
  return { title: t('by-mail.title', { site: name }), robots: { index: false } };
}

/** Where the mailed link leads. Mail programs open links by themselves, so opening it confirms nothing. */
export default async function ConfirmMailsPage({ params }: { params: Promise<{ token: string }> }) {
  const token = (await params).token.slice(0, 100);
  const [t, { name: site }] = [await siteWords(), await currentSite()];
  const topics = await shown(mailLink(await currentActor(), token));
  return (
    <div className="mx-auto w-full max-w-md px-5 py-14">
      <h1 className="text-4xl break-words">{t('by-mail.title', { site })}</h1>
      {topics ? (
        <ActionForm action={confirmMailsAction} className="mt-5 grid gap-4">
          {topics.map((topic) => (
            <p key={topic} className="text-lg">
              {t(`by-mail.confirm-${topic}`)}
            </p>
          ))}
          <input type="hidden" name="token" value={token} />
          <SubmitButton busy={t('form.moment')} className="w-fit">
            {t('by-mail.confirm')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      ) : (
        <>
          <p className="mt-5 text-lg">{t('by-mail.old-link')}</p>
          <SiteLinkButton href="/by-mail" className="mt-5">
            {t('by-mail.ask-again')}
          </SiteLinkButton>
        </>
      )}
    </div>
  );
}
