import { SiteLink, SiteLinkButton } from '@/kit/site-link';
import type { ReactNode } from 'react';
import type { Deed } from '@/core/billing/deeds';
import type { KeyCut } from '@/core/key-cut';
import { KeyGlyph } from '@/kit/key-cut';
import { ActionForm, FormMessage, ProblemOf, SubmitButton, type FormAction } from '@/kit/action-form';
import { buttonClass } from '@/kit/button';
import { CloseDetails } from '@/kit/close-details';
import { LifeMark } from '@/kit/state-mark';
import type { OfferId } from '@/core/ids';
import type { Words } from '@/words/speak';

type Props = {
  t: Words;
  id: string;
  name: string;
  keyCut: KeyCut | null;
  state: string;
  sentence: string;
  method: string | null;
  next: { date: string; amount: string } | null;
  until: string | null;
  ended: string | null;
  /** Nothing more is charged, and it is held for good; whether it was ever paid for. */
  isForGood: boolean;
  isPaid: boolean;
  ways?: {
    renew: { offerId: OfferId } | null;
    switches: { offerId: OfferId; tierName: string; price: string }[];
  };
  /** The offer under which it continues from a day, where it does. */
  movesTo: { isOwn: boolean; name: string; sentence: string; date: string } | null;
  pauses: boolean;
  isDisputed: boolean;
  /** What would not be refused now. */
  deeds: Deed[];
  /** The payer has not approved at their wallet what it costs next. */
  needsApproval: boolean;
  transfer: { amount: string; reference: string; payee: string; account: string } | null;
  actions: Record<'undoSwitch' | 'cancel' | 'undo' | 'pause' | 'resume' | 'pay', FormAction>;
};

function stateSentence(props: Props): string {
  const { t, state, next, until, ended, isForGood, isPaid, pauses, isDisputed } = props;
  const untilWords = { until: until ?? t('mails.later') };
  if (isDisputed) return t('subscription.disputed');
  if (isForGood && !next) return isPaid ? t('subscription.for-good') : t('subscription.free');
  if (state === 'ended') return t('subscription.ended', { date: ended ?? '' });
  if (state === 'cancelling') return t('subscription.cancelling', untilWords);
  if (state === 'paused') return t('subscription.paused');
  if (pauses) return t('subscription.pauses', untilWords);
  if (state === 'overdue' && next) return t('subscription.overdue', next);
  if (next) return t('subscription.next', next);
  return until ? t('subscription.until', untilWords) : t('subscription.free');
}

/** One subscription in the member's account: what it is, what it costs next, and the way out of it. */
export function SubscriptionCard(props: Props) {
  const { t, id, next, name, keyCut, state, sentence, method, until, isForGood, ways } = props;
  const { movesTo, pauses, deeds, needsApproval, transfer, actions } = props;
  const tier = { tier: name };
  const isCharged = next !== null || state === 'paused' || pauses;
  return (
    <section aria-label={name} className="rounded-xl border border-line bg-surface p-5">
      <div className="flex flex-wrap items-center gap-3">
        {keyCut && <KeyGlyph cut={keyCut} size={22} />}
        <h3 className="text-xl">{name}</h3>
        <LifeMark t={t} state={isForGood && state === 'ended' ? 'active' : state} />
      </div>
      <p className="figures mt-2 text-lg">{stateSentence(props)}</p>
      <p className="text-muted">
        {sentence} {method && t('subscription.paid-by', { method })}
      </p>
      {movesTo && (
        <ActionForm
          action={actions.undoSwitch}
          className="mt-3 grid gap-2 rounded-md bg-later-wash px-4 py-3 text-later"
        >
          <input type="hidden" name="subscription" value={id} />
          <p>
            {t('subscription.moves-to', {
              date: movesTo.date,
              tier: movesTo.name,
              sentence: movesTo.sentence,
            })}
          </p>
          {deeds.includes('take-back') && (
            <SubmitButton busy={t('subscription.undoing')} look="quiet" className="w-fit">
              {t('subscription.undo-switch')}
            </SubmitButton>
          )}
          <FormMessage />
        </ActionForm>
      )}
      {needsApproval && !transfer && (
        <div className="figures mt-3 grid gap-2 rounded-md bg-metered-wash px-4 py-3 text-metered">
          <p>
            {t('subscription.approve', {
              method: method ?? t('subscription.your-wallet'),
              date: next?.date ?? 'none',
            })}
          </p>
          <SiteLinkButton href={`/account/pay/${id}`} look="quiet" className="w-fit">
            {t('subscription.approve-link')}
          </SiteLinkButton>
        </div>
      )}
      {transfer && (
        <p className="figures mt-3 rounded-md bg-metered-wash px-4 py-3 text-metered">
          {t('subscription.transfer', transfer)}{' '}
          <SiteLink href={`/account/to-pay/${id}`} className="underline">
            {t('subscription.transfer-invoice')}
          </SiteLink>
        </p>
      )}
      {deeds.includes('pay-now') && !needsApproval && next && (
        <OneButton id={id} action={actions.pay} busy={t('pay.busy-card')} look="main">
          {t('subscription.pay-now', { amount: next.amount })}
        </OneButton>
      )}
      {deeds.includes('resume') && (
        <OneButton id={id} action={actions.resume} busy={t('form.moment')} look="main">
          {pauses ? t('subscription.undo-pause') : t('subscription.resume')}
        </OneButton>
      )}
      <div className="mt-4 flex flex-wrap items-start gap-3">
        {isCharged && state !== 'cancelling' && state !== 'ended' && (
          <SiteLinkButton href={`/account/pay/${id}`} look="quiet">
            {t('subscription.change-method')}
          </SiteLinkButton>
        )}
        {deeds.includes('pause') && until && (
          <Fold summary={t('subscription.pause', tier)}>
            <p className="mt-2">{t('subscription.pause-hint', { until })}</p>
            <OneButton id={id} action={actions.pause} busy={t('form.moment')}>
              {t('subscription.pause-yes', { until })}
            </OneButton>
          </Fold>
        )}
        {ways?.renew && (
          <SiteLinkButton href={`/join/${ways.renew.offerId}`}>
            {t('subscription.renew', tier)}
          </SiteLinkButton>
        )}
        {ways && ways.switches.length > 0 && !movesTo && state !== 'cancelling' && (
          <Fold summary={t('subscription.switch')}>
            <ul className="mt-2 grid gap-2">
              {ways.switches.map((way) => (
                <li key={way.offerId}>
                  <SiteLinkButton href={`/join/${way.offerId}`} look="quiet">
                    {t('subscription.switch-way', { tier: way.tierName, price: way.price })}
                  </SiteLinkButton>
                </li>
              ))}
            </ul>
          </Fold>
        )}
        {state === 'ended' && !isForGood && (
          <SiteLinkButton href="/join" look="quiet">
            {t('subscription.join-again')}
          </SiteLinkButton>
        )}
        {deeds.includes('undo') && (
          <ActionForm action={actions.undo} className="grid gap-3">
            <input type="hidden" name="subscription" value={id} />
            <SubmitButton busy={t('subscription.undoing')} look="quiet" className="w-fit">
              {t('subscription.undo-cancel')}
            </SubmitButton>
            <FormMessage />
          </ActionForm>
        )}
        {deeds.includes('cancel') && (
          <Fold summary={t('subscription.cancel', tier)}>
            <ActionForm action={actions.cancel} className="mt-4 grid gap-3 rounded-md bg-sunken p-4">
              <input type="hidden" name="subscription" value={id} />
              <p className="font-semibold">
                {until && state !== 'overdue' && state !== 'paused'
                  ? t('subscription.cancel-until', { ...tier, until })
                  : t('subscription.cancel-at-once', tier)}
              </p>
              <div className="flex flex-wrap gap-3">
                <SubmitButton busy={t('subscription.cancelling-busy')} look="bad">
                  {t('subscription.cancel-yes')}
                </SubmitButton>
                <CloseDetails>{t('subscription.cancel-no')}</CloseDetails>
              </div>
              <FormMessage />
            </ActionForm>
          </Fold>
        )}
      </div>
    </section>
  );
}

/** More that can be done, behind a button; works before any script. */
function Fold({ summary, children }: { summary: string; children: ReactNode }) {
  return (
    <details className="open:basis-full">
      <summary className={buttonClass('quiet', 'cursor-pointer list-none')}>{summary}</summary>
      {children}
    </details>
  );
}

function OneButton({
  id,
  action,
  busy,
  look = 'quiet',
  children,
}: {
  id: string;
  action: FormAction;
  busy: string;
  look?: 'quiet' | 'main';
  children: ReactNode;
}) {
  return (
    <ActionForm action={action} className="mt-4 grid gap-2">
      <input type="hidden" name="subscription" value={id} />
      <SubmitButton busy={busy} look={look} className="w-fit">
        {children}
      </SubmitButton>
      <FormMessage />
      {/* Why a card was refused, where there is no field of the card beside it. */}
      <ProblemOf name="card" />
    </ActionForm>
  );
}
