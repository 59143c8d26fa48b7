import type { Metadata } from 'next';
import { cache } from 'react';
import { Link } from '@/kit/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { config } from '@/platform/config';
import { EMPTY_PROSE } from '@/core/content/prose';
import { offerSentence } from '@/words/offers';
import { tierDetail } from '@/desk/services/tier-overview';
import { JoiningCodes } from '@/tiers/ui/joining-codes';
import { OpensList } from '@/access/ui/opens-list';
import { TierForm } from '@/tiers/ui/tier-form';
import { ToolRow } from '@/tiers/ui/tool-row';
import { KeyGlyph } from '@/kit/key-cut';
import { LinkButton } from '@/kit/button';
import { CopyText } from '@/kit/copy-text';
import { addCodeAction, saveTierAction, tierToolAction } from '../actions';
import { problem } from '@/words/problems';
import { desk } from '@/words/desk';

type Props = { params: Promise<{ id: string }> };

/** Read once a request: for the head and for the page. */
const detailOf = cache(async (id: string) => tierDetail(await currentActor(), id));

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const found = await detailOf((await params).id);
  return {
    title: desk('desk-tiers.tier-title', {
      name: (found.ok && found.value.tier?.name) || desk('desk-tiers.new-tier'),
    }),
  };
}

export default async function TierPage({ params }: Props) {
  const t = await deskWords();
  await requireStaff('set tiers');
  const { id } = await params;
  const detail = await shown(detailOf(id));
  const { tier, others, ladders, offers, opens, codes, overview, tierNames, isDeletable } = detail;
  return (
    <>
      <p>
        <Link href="/desk/tiers" className="text-spruce underline">
          {desk('desk.tiers')}
        </Link>
      </p>
      <div className="mt-1 flex flex-wrap items-center gap-x-5 gap-y-1" id="desk-main">
        <h1 className="flex items-center gap-3 text-3xl">
          {tier && <KeyGlyph cut={tier.keyCut} size={28} />}
          {tier ? tier.name : desk('desk-tiers.a-new-tier')}
        </h1>
        {overview && (
          <p className="figures text-muted">
            {[
              desk('desk.count-members', { count: overview.holders }),
              ...overview.income.map(({ amount, currency }) =>
                desk('desk-tiers.a-month', { amount: t.money(amount, currency) }),
              ),
              tier?.retiredAt && desk('desk-tiers.retired-inline'),
            ]
              .filter(Boolean)
              .join(' · ')}
          </p>
        )}
      </div>
      {!tier && <p className="mt-2 max-w-prose text-lg text-muted">{desk('desk-tiers.a-tier-is-what-a')}</p>}
      <div
        className={
          tier
            ? 'mt-5 grid items-start gap-10 lg:grid-cols-[minmax(0,34rem)_minmax(0,1fr)]'
            : 'mt-5 max-w-6xl'
        }
      >
        <TierForm
          action={saveTierAction}
          others={others.map(({ name, keyCut }) => ({
            keyCut,
            taken: t.problem(problem('tier.key-taken', { tier: name })),
          }))}
          tooLarge={t.problem(problem('picture.too-large'))}
          ladders={ladders}
          tier={{
            id: tier?.id ?? '',
            version: tier?.version ?? 0,
            name: tier?.name ?? '',
            description: tier?.description ?? EMPTY_PROSE,
            keyCut: tier?.keyCut ?? null,
            ladder: tier?.ladderId ?? '',
            reference: tier?.reference ?? '',
            pictureId: tier?.pictureId ?? null,
            joinWords: tier?.joinWords ?? EMPTY_PROSE,
            welcomeWords: tier?.welcomeWords ?? EMPTY_PROSE,
            welcomeShown: tier?.welcomeShown ?? ['page', 'mail', 'account'],
            welcomePath: tier?.welcomePath ?? '',
            joining: tier?.joining ?? 'open',
            onJoinPage: tier?.onJoinPage ?? true,
            several: tier?.several ?? false,
            onSaleFrom: tier?.onSaleFrom ?? '',
            onSaleUntil: tier?.onSaleUntil ?? '',
            places: tier?.places?.toString() ?? '',
          }}
        />
        {tier && (
          <div className="grid gap-8">
            <section>
              <h2 className="text-xl">{desk('desk.offers')}</h2>
              <p className="text-muted">{desk('desk-tiers.each-is-one-way-to', { name: tier.name })}</p>
              <ul className="mt-3 grid gap-3">
                {offers.map((offer) => (
                  <li key={offer.id} className="rounded-card border border-line bg-surface p-4">
                    <div className="flex items-baseline justify-between gap-4">
                      <Link
                        href={`/desk/tiers/${tier.id}/offers/${offer.id}`}
                        className="font-display text-lg font-semibold hover:underline"
                      >
                        {offer.name}
                      </Link>
                      {!offer.onSale && (
                        <span className="text-ended">
                          {offer.retiredAt
                            ? desk('desk-tiers.retired-inline')
                            : desk('desk-tiers.not-on-sale')}
                        </span>
                      )}
                    </div>
                    <p>{offerSentence(offer.definition, t, { tierNames })}</p>
                    <div className="mt-1 text-[0.9375rem] text-muted">
                      <CopyText
                        text={`${config().SITE_URL}/join/${offer.id}`}
                        label={t('form.copy', {
                          name: desk('desk-tiers.the-join-link-of', { name: offer.name }),
                        })}
                        copied={t('form.copied')}
                      />
                    </div>
                  </li>
                ))}
              </ul>
              <LinkButton
                href={`/desk/tiers/${tier.id}/offers/new`}
                look={offers.length === 0 ? 'main' : 'quiet'}
                className="mt-4"
              >
                {offers.length === 0
                  ? desk('desk-tiers.make-its-first-offer')
                  : desk('desk-tiers.another-offer')}
              </LinkButton>
            </section>
            {tier.joining === 'by-code' && (
              <JoiningCodes add={addCodeAction} tierId={tier.id} codes={codes} />
            )}
            <OpensList t={t} tierId={tier.id} opens={opens} />
            <ToolRow
              action={tierToolAction}
              what="tier"
              id={tier.id}
              name={tier.name}
              isRetired={tier.retiredAt !== null}
              canDelete={isDeletable}
            />
          </div>
        )}
      </div>
    </>
  );
}
