import type { Metadata } from 'next';
import { SiteLink } from '@/kit/site-link';
import { currentActor, shown, siteWords } from '@/app/session';
import { myFeed } from '@/access/services/private-feed';
import { myMailTopics } from '@/mail/services/mail-topics';
import { myOneTime } from '@/people/services/one-time-codes';
import { myPasskeys } from '@/people/services/passkeys';
import { mySettings } from '@/people/services/my-sign-in';
import { browserName } from '@/people/ui/browser-name';
import { OneTimeSettings } from '@/people/ui/one-time-settings';
import { Passkeys } from '@/people/ui/passkeys';
import { AddressForm, DeleteAccount, DetailsForm, PasswordForm } from '@/people/ui/settings-forms';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { Button } from '@/kit/button';
import {
  addPasskeyAction,
  askForNewPasskeyAction,
  removePasskeyAction,
  beginOneTimeAction,
  confirmOneTimeAction,
  endOneTimeAction,
  renewRecoveryAction,
  changeAddressAction,
  changeDetailsAction,
  changePasswordAction,
  deleteAccountAction,
  endSessionAction,
  makeFeedAction,
  revokeFeedAction,
  setMailTopicAction,
  signOutEverywhereAction,
} from './actions';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('account.details'),
  robots: { index: false },
});

/** Who the member is to the site, how they sign in, and what the site knows about them. */
export default async function SettingsPage() {
  const mine = await shown(mySettings(await currentActor()));
  const feed = await shown(myFeed(await currentActor()));
  const oneTime = await shown(myOneTime(await currentActor()));
  const passkeys = await shown(myPasskeys(await currentActor()));
  const topics = await shown(myMailTopics(await currentActor()));
  const t = await siteWords();
  const { hasPassword, sessions } = mine;
  return (
    <div className="mx-auto grid w-full max-w-3xl gap-10 px-5 py-12">
      <div>
        <p>
          <SiteLink href="/account" className="text-spruce underline">
            {t('account.title')}
          </SiteLink>
        </p>
        <h1 className="mt-1 text-4xl">{t('account.details')}</h1>
      </div>
      <section aria-label={t('details.name')}>
        <DetailsForm
          t={t}
          action={changeDetailsAction}
          name={mine.name}
          invoiceWords={mine.invoiceWords}
          country={mine.country}
        />
      </section>
      <section aria-label={t('details.email')}>
        <h2 className="text-2xl">{t('details.email')}</h2>
        <p className="mt-2 break-words">{t('details.email-now', { email: mine.email })}</p>
        <AddressForm t={t} action={changeAddressAction} hasPassword={hasPassword} />
      </section>
      <section aria-label={t('details.password')}>
        <h2 className="text-2xl">{hasPassword ? t('details.password') : t('details.set-password')}</h2>
        {!hasPassword && <p className="mt-2">{t('details.no-password-hint')}</p>}
        <PasswordForm t={t} action={changePasswordAction} hasPassword={hasPassword} />
      </section>
      <section id="passkeys" aria-label={t('passkey.title')}>
        <h2 className="text-2xl">{t('passkey.title')}</h2>
        <Passkeys
          t={t}
          passkeys={passkeys}
          hasPassword={hasPassword}
          ask={askForNewPasskeyAction}
          add={addPasskeyAction}
          remove={removePasskeyAction}
        />
      </section>
      {oneTime && (
        <section aria-label={t('one-time.title')}>
          <h2 className="text-2xl">{t('one-time.title')}</h2>
          <OneTimeSettings
            t={t}
            state={oneTime}
            hasPassword={hasPassword}
            actions={{
              begin: beginOneTimeAction,
              confirm: confirmOneTimeAction,
              renew: renewRecoveryAction,
              end: endOneTimeAction,
            }}
          />
        </section>
      )}
      <section aria-label={t('details.sessions')}>
        <h2 className="text-2xl">{t('details.sessions')}</h2>
        <ul className="mt-3 divide-y divide-line border-y border-line">
          {sessions.map((session) => (
            <li key={session.id} className="flex flex-wrap items-center justify-between gap-3 py-3">
              <div>
                <p className="font-semibold">
                  {browserName(session.browser, t)}
                  {session.isThis && <span className="font-normal text-muted"> {t('details.this-one')}</span>}
                </p>
                <p className="figures text-[0.9375rem] text-muted">
                  {t('details.last-seen', { when: t.dateTime(session.lastSeenAt) })}
                </p>
              </div>
              {!session.isThis && (
                <ActionForm
                  action={endSessionAction}
                  label={t('details.sign-out-of', { browser: browserName(session.browser, t) })}
                >
                  <input type="hidden" name="session" value={session.id} />
                  <FormMessage />
                  <SubmitButton busy={t('details.signing-out')} look="quiet">
                    {t('site.sign-out')}
                  </SubmitButton>
                </ActionForm>
              )}
            </li>
          ))}
        </ul>
        <form action={signOutEverywhereAction} className="mt-4">
          <Button type="submit" look="quiet">
            {t('details.everywhere')}
          </Button>
          <p className="mt-1 text-[0.9375rem] text-muted">{t('details.everywhere-hint')}</p>
        </form>
      </section>
      <section aria-label={t('mail-off.title')}>
        <h2 className="text-2xl">{t('mail-off.title')}</h2>
        <ul className="mt-3 grid gap-3">
          {topics.map(({ topic, isOn }) => (
            <li key={topic}>
              <ActionForm
                action={setMailTopicAction}
                label={t('mail-off.title')}
                className="flex flex-wrap items-center justify-between gap-3"
              >
                <span>{t(`mail-off.${isOn ? 'on' : 'off'}-${topic}`)}</span>
                <input type="hidden" name="topic" value={topic} />
                <input type="hidden" name="isOff" value={isOn ? 'yes' : 'no'} />
                <SubmitButton busy={t('form.saving')} look="quiet">
                  {isOn ? t('mail-off.turn-off') : t('mail-off.turn-on')}
                </SubmitButton>
                <FormMessage />
              </ActionForm>
            </li>
          ))}
        </ul>
      </section>
      <section aria-label={t('feed.title')}>
        <h2 className="text-2xl">{t('feed.title')}</h2>
        <p className="mt-2">{feed.since ? t('feed.since', { date: t.date(feed.since) }) : t('feed.hint')}</p>
        <div className="mt-3 flex flex-wrap items-start gap-3">
          <ActionForm
            action={makeFeedAction}
            label={t('feed.title')}
            className="grid gap-3 [overflow-wrap:anywhere]"
          >
            <SubmitButton busy={t('form.moment')} look="quiet" className="w-fit">
              {feed.since ? t('feed.make-another') : t('feed.make')}
            </SubmitButton>
            <FormMessage />
          </ActionForm>
          {feed.since && (
            <ActionForm action={revokeFeedAction} label={t('feed.revoke')}>
              <SubmitButton busy={t('form.moment')} look="quiet">
                {t('feed.revoke')}
              </SubmitButton>
              <FormMessage />
            </ActionForm>
          )}
        </div>
      </section>
      <section aria-label={t('details.data')}>
        <h2 className="text-2xl">{t('details.data')}</h2>
        <p className="mt-2">{t('details.data-hint')}</p>
        <p className="mt-3">
          <a href="/account/data" download className="text-spruce underline">
            {t('details.download')}
          </a>
        </p>
      </section>
      {mine.mayDelete && (
        <section aria-label={t('details.delete')}>
          <h2 className="text-2xl">{t('details.delete')}</h2>
          <p className="mt-2">{t('details.delete-hint')}</p>
          <DeleteAccount t={t} action={deleteAccountAction} hasPassword={hasPassword} />
        </section>
      )}
    </div>
  );
}
