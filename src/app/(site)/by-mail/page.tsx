import type { Metadata } from 'next';
import { currentActor, currentSite, siteWords } from '@/app/session';
import { OPEN_TOPICS } from '@/core/mail-topics';
import { ActionForm, FormMessage, ProblemOf, SubmitButton } from '@/kit/action-form';
import { CheckField, TextField } from '@/kit/field';
import { Sentence } from '@/kit/sentence';
import { SiteLink } from '@/kit/site-link';
import { askForMailsAction } from './actions';

export async function generateMetadata(): Promise<Metadata> {
  const [t, { name }] = [await siteWords(), await currentSite()];
  return { title: t('by-mail.title', { site: name }) };
}

/** Where people without an account ask for posts and letters. */
export default async function ByMailPage() {
  const [t, { name: site }, actor] = [await siteWords(), await currentSite(), await currentActor()];
  return (
    <div className="mx-auto w-full max-w-md px-5 py-14">
      <h1 className="text-4xl break-words">{t('by-mail.title', { site })}</h1>
      {actor.memberId ? (
        <p className="mt-5 text-lg">
          <Sentence
            words={t('by-mail.member')}
            parts={{
              link: (words) => (
                <SiteLink href="/account/settings" className="text-spruce underline">
                  {words}
                </SiteLink>
              ),
            }}
          />
        </p>
      ) : (
        <>
          <p className="mt-4">{t('by-mail.intro')}</p>
          <ActionForm
            action={askForMailsAction}
            label={t('by-mail.title', { site })}
            className="mt-6 grid gap-4"
          >
            <TextField
              name="email"
              type="email"
              label={t('checkout.email')}
              autoComplete="email"
              required
              maxLength={200}
            />
            {OPEN_TOPICS.map((topic) => (
              <CheckField
                key={topic}
                name={`topic-${topic}`}
                label={t(`by-mail.topic-${topic}`, { site })}
                defaultChecked={topic === 'posts'}
              />
            ))}
            <ProblemOf name="topics" />
            <SubmitButton busy={t('form.moment')} className="w-fit">
              {t('by-mail.send')}
            </SubmitButton>
            <FormMessage />
          </ActionForm>
        </>
      )}
    </div>
  );
}
