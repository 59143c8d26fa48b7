import { Fragment } from 'react';
import type { Asker } from '@/core/access/asker';
import { noticeParts, type NoticePart } from '@/core/access/doorstep';
import type { FormAction } from '@/kit/action-form';
import { SiteLink, SiteLinkButton } from '@/kit/site-link';
import type { Words } from '@/words/speak';
import type { OpeningPass } from '@/core/access/would-open';
import { PassForms } from './pass-forms';
import { SignInForm } from '@/people/ui/sign-in-form';
import { Horizon } from '@/billing/ui/horizon';
import { TierOfferCard, type OfferedTier } from '@/content/ui/tier-offer-card';

type DoorstepTier = Omit<OfferedTier, 'offers'> & {
  offers: (OfferedTier['offers'][number] & { price: string })[];
  later: boolean;
};

type Props = {
  t: Words;
  signIn: FormAction;
  item: { type: string; title: string; path: string; summary: string };
  state: 'later' | 'ended' | 'closed';
  opensOn: string | null;
  minutesLeft: number;
  asker: Asker;
  notice: string;
  firstName: string;
  button: { words: string; to: string } | null;
  showSignIn: boolean;
  joinPath: string;
  signInPath: string;
  tiers: DoorstepTier[];
  /** The passes that would open it, with the ways to get each. */
  passes: OpeningPass[];
  getPass: { byPassword: FormAction; byAddress: FormAction };
  /** Where free reads were used up: how many there are, and on which day there are some again. */
  usedUp: { of: number; freeOn: string | null } | null;
};

function heading({ t, item: { type }, asker, state, opensOn, tiers, usedUp }: Props): string {
  if (asker === 'payment-failed') return t('doorstep.unpaid');
  if (usedUp) return t('doorstep.used-up', { of: usedUp.of });
  if (state === 'later' && opensOn) return t('doorstep.later', { type, date: opensOn });
  if (state === 'ended') return t('doorstep.ended', { type });
  if (tiers.length === 0) return t('doorstep.closed', { type });
  return t('doorstep.tiers', { type, tiers: t.list(tiers.map((tier) => tier.name)) });
}

/** The owner's notice, filled in for the one who reads it. */
export function noticeFor(
  notice: string,
  {
    t,
    item,
    firstName,
    tiers,
    joinPath,
    signInPath,
  }: Pick<Props, 't' | 'item' | 'firstName' | 'tiers' | 'joinPath' | 'signInPath'>,
): NoticePart[] {
  return noticeParts(notice, {
    'first name': firstName,
    item: item.title,
    summary: item.summary,
    tiers: t.list(tiers.map(({ name }) => name)),
    price: tiers.at(-1)?.offers[0]?.price ?? '',
    join: { label: t('site.join'), href: joinPath },
    'sign in': { label: t('site.sign-in'), href: signInPath },
  });
}

/** Parts of a notice, its links as links. */
export function Notice({ parts }: { parts: NoticePart[] }) {
  return parts.map((part, n) =>
    typeof part === 'string' ? (
      <Fragment key={n}>{part}</Fragment>
    ) : (
      <SiteLink key={n} href={part.href} className="underline underline-offset-4">
        {part.label}
      </SiteLink>
    ),
  );
}

/** What someone sees who is not let in: why, and every way to get in. */
export function Doorstep(props: Props) {
  const { t, item, asker, minutesLeft, notice, button, showSignIn, tiers, usedUp } = props;
  return (
    <div className="mt-auto">
      <Horizon />
      <section
        aria-label={t('doorstep.region')}
        className="closed-part on-night bg-night text-on-night"
        style={{ colorScheme: 'dark' }}
      >
        <div className="mx-auto grid max-w-5xl gap-8 px-5 pt-6 pb-14 lg:grid-cols-[5fr_7fr]">
          <div>
            <h2 className="text-3xl leading-tight">{heading(props)}</h2>
            <p className="mt-3 text-lg whitespace-pre-line text-on-night-soft">
              <Notice parts={noticeFor(notice, props)} />{' '}
              {minutesLeft > 0 && t('doorstep.minutes', { minutes: minutesLeft })}
            </p>
            {usedUp?.freeOn && (
              <p className="mt-2 text-on-night-soft">{t('doorstep.free-again', { date: usedUp.freeOn })}</p>
            )}
            <div className="mt-5 flex flex-wrap gap-3 empty:hidden">
              {asker === 'payment-failed' && (
                <SiteLinkButton href="/account" look="lamp">
                  {t('doorstep.pay')}
                </SiteLinkButton>
              )}
              {button && (
                <SiteLinkButton href={button.to} look={asker === 'payment-failed' ? 'night' : 'lamp'}>
                  {button.words}
                </SiteLinkButton>
              )}
            </div>
            {props.passes.map((pass) => (
              <PassForms key={pass.id} t={t} pass={pass} to={item.path} actions={props.getPass} />
            ))}
            {showSignIn && (
              <details className="mt-5">
                <summary className="w-fit underline underline-offset-4">{t('doorstep.sign-in')}</summary>
                <SignInForm t={t} action={props.signIn} to={item.path} onNight />
              </details>
            )}
            <p className="mt-5">
              <SiteLink
                href={`/code?to=${encodeURIComponent(item.path)}`}
                className="underline underline-offset-4"
              >
                {t('code.have-one')}
              </SiteLink>
            </p>
          </div>
          <div className="grid content-start gap-4 sm:grid-cols-2">
            {tiers.map((tier, index) => (
              <TierOfferCard
                key={tier.id}
                t={t}
                tier={tier}
                returnTo={item.path}
                isFirst={index === 0 && !button && asker !== 'payment-failed'}
                note={tier.later ? t('doorstep.after-wait') : undefined}
              />
            ))}
          </div>
        </div>
      </section>
    </div>
  );
}
