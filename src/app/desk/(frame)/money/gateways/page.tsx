import type { Metadata } from 'next';
import { requireStaff } from '@/app/session';
import { config } from '@/config';
import { formatDateTime } from '@/core/calendar';
import { may } from '@/core/staff';
import { gatewayList } from '@/services/gateway-list';
import { ConnectGateway } from '@/ui/desk/connect-gateway';
import { GatewayCard } from '@/ui/desk/gateway-card';
import { MoneyTabs } from '@/ui/desk/money-tabs';
import { connectGatewayAction, registerWebhookAction } from '../actions';

export const metadata: Metadata = { title: 'Gateways' };

export default async function GatewaysPage() {
  const staff = await requireStaff();
  const mayManage = may(staff.staffRole, 'manage money');
  const { accounts, site } = await gatewayList();
  const when = (at: string | null): string | null => at && formatDateTime(at, site.zone);
  return (
    <>
      <MoneyTabs here="gateways" />
      <div className="mt-5 grid items-start gap-8 xl:grid-cols-[1fr_30rem]">
        <div className="grid gap-4">
          {accounts.length === 0 && (
            <p className="max-w-prose text-lg text-muted">
              No gateway is connected yet. Without one, only free offers can be joined. Connect Curlew Cards
              in test mode first: no real money moves, and you can try everything.
            </p>
          )}
          {accounts.map(({ account, reconciliation, refused }) => (
            <GatewayCard
              key={account.id}
              id={account.id}
              label={account.label}
              mode={account.mode}
              siteKey={account.siteKey}
              checked={when(account.checkedAt) ?? ''}
              heard={when(account.heardAt)}
              webhookError={account.webhookError}
              isRegistered={account.webhookRef !== null}
              books={reconciliation}
              refused={refused.map(({ id, receivedAt, result }) => ({
                id,
                when: when(receivedAt) ?? '',
                result,
              }))}
              register={mayManage ? registerWebhookAction : null}
            />
          ))}
        </div>
        {mayManage && (
          <ConnectGateway
            action={connectGatewayAction}
            mode={site.mode}
            whereToFindKeys={config().CURLEW_CARDS_URL}
            isFirst={accounts.length === 0}
          />
        )}
      </div>
    </>
  );
}
