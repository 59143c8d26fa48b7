import { CodeField, CodeProblem } from '@/checkout/ui/code-field';
import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, currentMember, siteWords } from '@/app/session';
import { lookAtCode } from '@/members/services/redeem-code';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { SiteLink, SiteLinkButton } from '@/kit/site-link';
import { buttonClass } from '@/kit/button';
import { discountWords } from '@/words/discounts';
import { lengthWords } from '@/words/offers';
import { redeemAction } from './actions';

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
  const problem = looked && !looked.ok ? (Object.values(t.problems(looked.problems))[0] ?? '') : '';
  const found = looked?.ok ? looked.value : null;
  const here = `/code?${new URLSearchParams({ word, ...(to && { to }) }).toString()}`;
  return (
    <div className="mx-auto w-full max-w-xl px-5 py-12">
      <h1 className="text-4xl">{t('code.title')}</h1>
      {!found && <p className="mt-2 text-lg text-muted">{t('code.intro')}</p>}
      <form className="mt-6 flex flex-wrap items-end gap-3">
        <CodeField t={t} name="word" word={word} problem={problem} />
        <button className={buttonClass(found ? 'quiet' : 'main')}>{t('code.look')}</button>
        <CodeProblem problem={problem} />
      </form>
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
            <div className="flex flex-wrap items-center gap-4">
              <SiteLinkButton href={`/sign-in?to=${encodeURIComponent(here)}`}>
                {t('site.sign-in')}
              </SiteLinkButton>
              <span className="text-muted">{t('code.sign-in-first')}</span>
            </div>
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
