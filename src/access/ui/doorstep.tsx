import type { FormAction } from '@/kit/action-form';
import { SignInForm } from '@/people/ui/sign-in-form';
import { Horizon } from '@/billing/ui/horizon';
import { TierOfferCard, type OfferedTier } from '@/content/ui/tier-offer-card';

type Props = {
  signIn: FormAction;
  type: 'page' | 'post';
  path: string;
  state: 'later' | 'ended' | 'closed';
  opensOn: string | null;
  minutesLeft: number;
  notice: string;
  showSignIn: boolean;
  tiers: (OfferedTier & { later: boolean })[];
};

function listed(names: string[]): string {
  return names.length < 3 ? names.join(' and ') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}

function heading({ type, state, opensOn, tiers }: Props): string {
  if (state === 'later' && opensOn) return `This ${type} opens to you on ${opensOn}`;
  if (state === 'ended') return `This ${type} is not open any more`;
  if (tiers.length === 0) return `This ${type} is not open to everybody`;
  return `This ${type} opens to ${listed(tiers.map((tier) => tier.name))}`;
}

/** Where somebody stands who is not let in: why, and every way to get in. */
export function Doorstep(props: Props) {
  const { path, minutesLeft, notice, showSignIn, tiers } = props;
  return (
    <div className="mt-auto">
      <Horizon />
      <section aria-label="How to read on" className="bg-night text-on-night" style={{ colorScheme: 'dark' }}>
        <div className="mx-auto grid max-w-5xl gap-8 px-5 pt-6 pb-14 lg:grid-cols-[5fr_7fr]">
          <div>
            <h2 className="text-3xl leading-tight">{heading(props)}</h2>
            <p className="mt-3 text-lg text-on-night-soft">
              {notice}{' '}
              {minutesLeft === 1
                ? 'A minute more of reading.'
                : `About ${minutesLeft} more minutes of reading.`}
            </p>
            {showSignIn && (
              <details className="mt-5">
                <summary className="w-fit underline underline-offset-4">
                  Already one of us? Sign in here, and carry on reading.
                </summary>
                <SignInForm action={props.signIn} to={path} onNight />
              </details>
            )}
          </div>
          <div className="grid content-start gap-4 sm:grid-cols-2">
            {tiers.map((tier, index) => (
              <TierOfferCard
                key={tier.id}
                tier={tier}
                returnTo={path}
                isFirst={index === 0}
                note={tier.later ? 'Opens this after a wait' : undefined}
              />
            ))}
          </div>
        </div>
      </section>
    </div>
  );
}
