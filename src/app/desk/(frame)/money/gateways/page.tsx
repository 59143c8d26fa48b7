import clsx from 'clsx';
import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import type { Instant } from '@/core/instants';
import type { Carries } from '@/core/offers/carries';
import { gatewayList, type Gateway } from '@/billing/services/gateway-list';
import { ConnectGateways, type Connectable } from '@/billing/ui/connect-gateway';
import { GatewayCard } from '@/billing/ui/gateway-card';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import {
  arrangeGatewayAction,
  disconnectGatewayAction,
  checkAccountAction,
  compareBooksAction,
  connectGatewayAction,
  connectTransferAction,
  consentAction,
  registerWebhookAction,
  webhookSecretAction,
} from '../actions';
import type { Problem } from '@/core/problem';
import { desk } from '@/words/desk';
import { isProblemCode, type ProblemCode } from '@/words/problems';

export const metadata: Metadata = { title: desk('desk-money.gateways-money') };

export default async function GatewaysPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  const staff = await requireStaff('see money');
  const { connected, problem: code, mode: asked } = await searchOf(searchParams);
  const problem = refusedConsent(code);
  const mayManage = staff.may('connect gateways');
  const { accounts, all, site } = await shown(gatewayList(await currentActor()));
  const connectIn = asked === 'live' || asked === 'test' ? asked : site.mode;
  const when = (at: Instant | null): string | null => at && t.dateTime(at);
  const actions = {
    register: registerWebhookAction,
    keepSecret: webhookSecretAction,
    check: checkAccountAction,
    compare: compareBooksAction,
    arrange: arrangeGatewayAction,
    disconnect: disconnectGatewayAction,
  };
  return (
    <>
      <MoneyTabs here="gateways" />
      {problem && (
        <p
          role="alert"
          className="mt-4 rounded-md border-l-4 border-closed bg-closed-wash px-3 py-2 font-medium text-closed"
        >
          {t.problem(problem)}
        </p>
      )}
      {connected && (
        <p role="status" className="mt-4 font-medium text-open">
          {desk('desk-money.connected')}
        </p>
      )}
      <div className={clsx('mt-5 grid items-start gap-8', accounts.length > 0 && 'xl:grid-cols-[1fr_28rem]')}>
        <div className="grid gap-4">
          {accounts.length === 0 && (
            <p className="max-w-prose text-lg text-muted">
              {desk('desk-money.no-gateway-yet', { gateway: all[0]?.name ?? '' })}
            </p>
          )}
          {accounts.map(({ account, gateway, books, address, inUse }, index) => (
            <GatewayCard
              key={account.id}
              id={account.id}
              gateway={gateway.name}
              label={account.label}
              mode={account.mode}
              isFirst={!accounts.slice(0, index).some((other) => other.account.mode === account.mode)}
              account={'account' in account.settings ? account.settings.account : account.siteKey}
              atCheckout={account.atCheckout}
              checked={gateway.connectedBy === 'details' ? null : when(account.checkedAt)}
              heard={when(account.heardAt)}
              webhookError={account.webhookError}
              isRegistered={account.webhookRef !== null}
              address={address}
              inUse={inUse}
              lastError={account.lastError && `${account.lastError} (${when(account.lastErrorAt) ?? ''})`}
              carries={carriesWords(gateway.carries)}
              books={gateway.nature === 'transfer' ? { ok: true, none: true } : (books?.comparison ?? null)}
              compared={when(books?.comparedAt ?? null)}
              actions={mayManage ? actions : null}
            />
          ))}
        </div>
        {mayManage && (
          <ConnectGateways
            mode={connectIn}
            isWide={accounts.length === 0}
            gateways={all.map((gateway) => connectable(gateway, connectIn))}
            byKeys={connectGatewayAction}
            byConsent={consentAction}
            byDetails={connectTransferAction}
          />
        )}
      </div>
    </>
  );
}

/** Why consent came to nothing: an address can name one of our own sentences, and holds none itself. */
const refusedConsent = (code = ''): Problem<ProblemCode> | null =>
  code.startsWith('consent.') && isProblemCode(code) ? { code } : null;

/** What the forms for connecting need to know of a gateway. */
const connectable = ({ id, name, connectedBy, pasted }: Gateway, mode: 'test' | 'live'): Connectable => ({
  id,
  name,
  connectedBy,
  keys: pasted && {
    page: pasted.page,
    siteKey: pasted.example('siteKey', mode),
    secretKey: pasted.example('secretKey', mode),
  },
});

function carriesWords({ currencies, units, pause, discount, refund, switch: switches }: Carries): string {
  const cannot = [
    !pause && desk('desk-money.pauses'),
    !discount && desk('desk-money.credit-on-a-single-charge'),
    !switches && desk('desk-money.switches-without-a-new-approval'),
    !refund && desk('desk-money.refunds-through-the-gateway'),
  ].filter(Boolean);
  const bills = desk('desk-money.bills', {
    units: units.join(', '),
    currencies: currencies ? currencies.join(', ') : desk('desk-money.any-currency'),
  });
  return cannot.length === 0
    ? bills
    : `${bills} ${desk('desk-money.not-supported', { features: cannot.join(', ') })}`;
}
