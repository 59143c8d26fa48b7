import type { FormAction } from '@/kit/action-form';
import type { Words } from '@/words/speak';
import { SignInForm } from '@/people/ui/sign-in-form';
import { Horizon } from '@/billing/ui/horizon';
import { TierOfferCard, type OfferedTier } from '@/content/ui/tier-offer-card';

type Props = {
  t: Words;
  signIn: FormAction;
  type: string;
  path: string;
  state: 'later' | 'ended' | 'closed';
  opensOn: string | null;
  minutesLeft: number;
  notice: string;
  showSignIn: boolean;
  tiers: (OfferedTier & { later: boolean })[];
};

function heading({ t, type, state, opensOn, tiers }: Props): string {
  if (state === 'later' && opensOn) return t('doorstep.later', { type, date: opensOn });
  if (state === 'ended') return t('doorstep.ended', { type });
  if (tiers.length === 0) return t('doorstep.closed', { type });
  return t('doorstep.tiers', { type, tiers: t.list(tiers.map((tier) => tier.name)) });
}

/** What someone sees who is not let in: why, and every way to get in. */
export function Doorstep(props: Props) {
  const { t, path, minutesLeft, notice, showSignIn, tiers } = props;
  return (
    <div className="mt-auto">
      <Horizon />
      <section
        aria-label={t('doorstep.region')}
        className="closed-part bg-night text-on-night"
        style={{ colorScheme: 'dark' }}
      >
        <div className="mx-auto grid max-w-5xl gap-8 px-5 pt-6 pb-14 lg:grid-cols-[5fr_7fr]">
          <div>
            <h2 className="text-3xl leading-tight">{heading(props)}</h2>
            <p className="mt-3 text-lg text-on-night-soft">
              {notice} {t('doorstep.minutes', { minutes: minutesLeft })}
            </p>
            {showSignIn && (
              <details className="mt-5">
                <summary className="w-fit underline underline-offset-4">{t('doorstep.sign-in')}</summary>
                <SignInForm t={t} action={props.signIn} to={path} onNight />
              </details>
            )}
          </div>
          <div className="grid content-start gap-4 sm:grid-cols-2">
            {tiers.map((tier, index) => (
              <TierOfferCard
                key={tier.id}
                t={t}
                tier={tier}
                returnTo={path}
                isFirst={index === 0}
                note={tier.later ? t('doorstep.after-wait') : undefined}
              />
            ))}
          </div>
        </div>
      </section>
    </div>
  );
}
