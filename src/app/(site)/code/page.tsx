import { CodeField, CodeProblem } from '@/checkout/ui/code-field';
import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, currentMember, siteWords } from '@/app/session';
import { lookAtCode } from '@/members/services/redeem-code';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { beginAccountAction } from '@/app/begin-account-action';
import { startWords } from '@/app/start-words';
import { StartForm } from '@/checkout/ui/start-form';
import { SiteLink } from '@/kit/site-link';
import { lookAtPassCode } from '@/members/services/use-pass-code';
import { formStamp } from '@/platform/guard-form';
import { buttonClass } from '@/kit/button';
import { discountWords } from '@/words/discounts';
import { lengthWords } from '@/words/offers';
import { redeemAction, usePassCodeAction } from './actions';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('code.title'),
  robots: { index: false },
});

/** Where a code is typed, or a link with one leads: what it does, and a way to use it. */
export default async function CodePage({ searchParams }: { searchParams: Search }) {
  const { word: typed = '', to = '' } = await searchOf(searchParams);
  const t = await siteWords();
  const [actor, member] = [await currentActor(), await currentMember()];
  const word = typed.trim().slice(0, 60);
  const looked = word ? await lookAtCode(actor, word) : null;
  // A word that is no code of the site may be the personal code of a pass.
  const isUnknown = looked !== null && !looked.ok && looked.problems.word?.code === 'checkout.code-invalid';
  const pass = isUnknown ? await lookAtPassCode(actor, word) : null;
  const wrong = pass ?? looked;
  const problem = wrong && !wrong.ok ? (Object.values(t.problems(wrong.problems))[0] ?? '') : '';
  const found = looked?.ok ? looked.value : null;
  const stamp = formStamp();
  const here = `/code?${new URLSearchParams({ word, ...(to && { to }) }).toString()}`;
  return (
    <div className="mx-auto w-full max-w-xl px-5 py-12">
      <h1 className="text-4xl">{t('code.title')}</h1>
      {!found && <p className="mt-2 text-lg text-muted">{t('code.intro')}</p>}
      <form className="mt-6 flex flex-wrap items-end gap-3">
        {to && <input type="hidden" name="to" value={to} />}
        <CodeField t={t} name="word" word={word} problem={problem} />
        <button className={buttonClass(found ? 'quiet' : 'main')}>{t('code.look')}</button>
        <CodeProblem problem={problem} />
      </form>
      {pass?.ok && (
        <section className="mt-8 grid gap-4 rounded-card border border-line bg-surface p-6">
          <p className="text-lg">
            {pass.value.until
              ? t('code.opens-until', { name: pass.value.name, date: t.until(pass.value.until) })
              : t('code.opens', { name: pass.value.name })}
          </p>
          {pass.value.isBuyer ? (
            <p className="text-muted">{t('code.yours')}</p>
          ) : (
            <ActionForm action={usePassCodeAction} className="grid gap-3">
              <input type="hidden" name="word" value={word} />
              <input type="hidden" name="to" value={to} />
              <SubmitButton busy={t('code.taking')} className="w-fit px-8">
                {t('code.use-here')}
              </SubmitButton>
              <FormMessage />
            </ActionForm>
          )}
        </section>
      )}
      {found?.gives && (
        <section className="mt-8 grid gap-4 rounded-card border border-line bg-surface p-6">
          <p className="text-lg">
            {t(found.gives.kind === 'tier' ? 'code.gives-tier' : 'code.gives-pass', {
              name: found.gives.name,
              length: found.gives.lasts ? lengthWords(found.gives.lasts, t) : 'none',
            })}
          </p>
          {member ? (
            <ActionForm action={redeemAction} className="grid gap-3">
              <input type="hidden" name="word" value={found.word} />
              <SubmitButton busy={t('code.taking')} className="w-fit px-8">
                {t('code.take')}
              </SubmitButton>
              <FormMessage />
            </ActionForm>
          ) : (
            <>
              <p className="text-muted">{t('code.sign-in-first')}</p>
              <StartForm
                words={startWords(t, 'code.title')}
                action={beginAccountAction}
                offerId=""
                to={here}
                name=""
                code=""
                stamp={stamp}
                signInHref={`/sign-in?to=${encodeURIComponent(here)}`}
              />
            </>
          )}
        </section>
      )}
      {found && found.tiers.length > 0 && (
        <section className="mt-8">
          <p className="text-lg">
            {found.discount
              ? t('code.takes-off', { words: discountWords(found.discount, found.currency ?? '', t) })
              : t('code.admits')}
          </p>
          <ul className="mt-3 grid gap-2">
            {found.tiers.flatMap((tier) =>
              tier.offers.map((offer) => (
                <li key={offer.id}>
                  <SiteLink
                    href={`/join/${offer.id}?${new URLSearchParams({ code: found.word, ...(to && { to }) }).toString()}`}
                    className="text-spruce underline"
                  >
                    {t('code.join-by', { tier: tier.name, offer: offer.name })}
                  </SiteLink>
                </li>
              )),
            )}
          </ul>
        </section>
      )}
    </div>
  );
}
