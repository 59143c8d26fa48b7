import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { webhooksPlace } from '@/billing/services/webhooks';
import { WebhookForm } from '@/billing/ui/webhook-form';
import { Empty } from '@/kit/empty';
import { desk } from '@/words/desk';
import { addWebhookAction } from './actions';

export const metadata: Metadata = { title: desk('desk-settings.webhooks-settings') };

export default async function WebhooksPage() {
  await requireStaff('set up the site');
  const [t, { webhooks, tiers, mode }] = [
    await deskWords(),
    await shown(webhooksPlace(await currentActor())),
  ];
  const names = new Map(tiers.map(({ id, name }) => [id, name]));
  return (
    <>
      <p className="mt-4 max-w-prose text-muted">
        {desk('desk-settings.webhooks-intro')} {desk('desk-settings.webhooks-mode', { mode })}
      </p>
      <div className="mt-5 grid grid-cols-1 items-start gap-8 lg:grid-cols-[24rem_minmax(0,1fr)]">
        <WebhookForm action={addWebhookAction} tiers={tiers} hook={null} />
        {webhooks.length === 0 ? (
          <Empty title={desk('desk-settings.no-webhook-yet')}>{desk('desk-settings.no-webhook-hint')}</Empty>
        ) : (
          <ul className="divide-y divide-line rounded-card border border-line bg-surface">
            {webhooks.map((hook) => (
              <li key={hook.id} className="px-5 py-3.5">
                <Link
                  href={`/desk/settings/webhooks/${hook.id}`}
                  className="font-semibold [overflow-wrap:anywhere] hover:underline"
                >
                  {hook.url}
                </Link>
                <p className="text-[0.9375rem] text-muted">
                  {t.list(hook.topics.map((topic) => desk(`desk-settings.topic-${topic}`)))}
                  {hook.tiers && ` · ${t.list(hook.tiers.map((id) => names.get(id) ?? id))}`}
                </p>
                {!hook.isOn && (
                  <p className="font-medium text-ended">{desk('desk-settings.webhook-is-off')}</p>
                )}
                {hook.isOn && hook.failingSince && (
                  <p className="font-medium text-closed">
                    {desk('desk-settings.webhook-fails', { date: t.dateTime(hook.failingSince) })}
                  </p>
                )}
              </li>
            ))}
          </ul>
        )}
      </div>
    </>
  );
}
