import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, currentMember, shown, siteWords } from '@/app/session';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { Empty } from '@/kit/empty';
import { SiteLink } from '@/kit/site-link';
import { myPurchases, type MyPurchase } from '@/members/services/my-purchases';
import type { Words } from '@/words/words';
import { endDeviceAction, sendCodeAction } from './actions';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('purchases.title'),
  robots: { index: false },
});

/** What a member has bought once: its codes, and the devices on which they are used. */
export default async function PurchasesPage({ searchParams }: { searchParams: Search }) {
  const [t, { new: bought }] = [await siteWords(), await searchOf(searchParams)];
  const mine = await shown(myPurchases(await currentActor()));
  const member = await currentMember();
  const fresh = mine.find(({ id, state }) => id === bought && state === 'paid');
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      <p>
        <SiteLink href="/account" className="text-spruce underline">
          {t('account.title')}
        </SiteLink>
      </p>
      <h1 className="mt-1 text-4xl">{t('purchases.title')}</h1>
      {fresh && (
        <p role="status" className="mt-5 rounded-md border-l-4 border-open bg-open-wash px-4 py-3 text-open">
          {t(`purchases.new-${fresh.kind}`, { name: fresh.name, email: member?.email ?? '' })}
        </p>
      )}
      {mine.length === 0 ? (
        <div className="mt-8">
          <Empty title={t('purchases.none')}>{t('purchases.none-hint')}</Empty>
        </div>
      ) : (
        <ul className="mt-6 grid gap-4">
          {mine.map((purchase) => (
            <li key={purchase.id} className="rounded-xl border border-line bg-surface p-5">
              <Purchase t={t} {...purchase} />
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function stateOf(t: Words, { kind, state, until, isUsed }: MyPurchase): string {
  if (state === 'ended') return t('purchases.refunded');
  if (kind === 'gift-card') return t(isUsed ? 'purchases.card-used' : 'purchases.card-unused');
  if (until === undefined) return t('purchases.over');
  return until ? t('purchases.open-until', { date: t.until(until) }) : t('purchases.open');
}

function Purchase({ t, ...purchase }: MyPurchase & { t: Words }) {
  const { id, kind, name, state, at, until, devices, mostDevices, isUsed } = purchase;
  const isOpen = state === 'paid' && (kind === 'pass' ? until !== undefined : !isUsed);
  return (
    <>
      <h2 className="text-xl break-words">{name}</h2>
      <p className="figures text-muted">
        {t('purchases.bought-on', { date: t.date(at) })} · {stateOf(t, purchase)}
      </p>
      {isOpen && (
        <ActionForm action={sendCodeAction} className="mt-3 flex flex-wrap items-center gap-3">
          <input type="hidden" name="purchase" value={id} />
          <SubmitButton busy={t('form.sending')} look="quiet">
            {t('purchases.send-code')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
      {kind === 'pass' && isOpen && (
        <div className="mt-4">
          <h3 className="text-lg">
            {mostDevices === null
              ? t('purchases.devices', { count: devices.length })
              : t('purchases.devices-of', { count: devices.length, most: mostDevices })}
          </h3>
          {devices.length === 0 && <p className="text-muted">{t('purchases.no-devices')}</p>}
          <ul className="mt-1 divide-y divide-line">
            {devices.map((device) => (
              <li key={device.id} className="flex flex-wrap items-center justify-between gap-3 py-2">
                <span className="figures">
                  {device.memberName ?? t('purchases.a-browser')}
                  <span className="text-muted">
                    {' '}
                    {t('purchases.since', { date: t.dateTime(device.since) })}
                  </span>
                </span>
                <ActionForm action={endDeviceAction} className="flex items-center gap-3">
                  <input type="hidden" name="purchase" value={id} />
                  <input type="hidden" name="device" value={device.id} />
                  <SubmitButton busy={t('details.signing-out')} look="quiet">
                    {t('site.sign-out')}
                  </SubmitButton>
                  <FormMessage />
                </ActionForm>
              </li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}
