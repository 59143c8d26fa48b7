import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { webhookLog, webhooksPlace } from '@/billing/services/webhooks';
import { WebhookForm } from '@/billing/ui/webhook-form';
import { ConfirmAction } from '@/kit/confirm-action';
import { Empty } from '@/kit/empty';
import { Pager } from '@/kit/list-bar';
import { desk } from '@/words/desk';
import { changeWebhookAction, removeWebhookAction, sendAgainAction } from '../actions';

type Props = { params: Promise<{ id: string }>; searchParams: Search };

export const metadata: Metadata = { title: desk('desk-settings.webhooks-settings') };

export default async function WebhookPage({ params, searchParams }: Props) {
  await requireStaff('set up the site');
  const [t, actor, { id }] = [await deskWords(), await currentActor(), await params];
  const { hook, rows, total, page, rowsOnPage } = await shown(
    webhookLog(actor, { id, page: (await searchOf(searchParams)).page }),
  );
  const { tiers } = await shown(webhooksPlace(actor));
  return (
    <>
      <p className="mt-4">
        <Link href="/desk/settings/webhooks" className="text-spruce underline">
          {desk('desk-settings.all-webhooks')}
        </Link>
      </p>
      <div className="mt-4 grid grid-cols-1 items-start gap-8 lg:grid-cols-[24rem_minmax(0,1fr)]">
        <div className="grid grid-cols-1 gap-4">
          <WebhookForm action={changeWebhookAction} tiers={tiers} hook={hook} />
          <div>
            <ConfirmAction
              action={removeWebhookAction}
              fields={{ id: hook.id }}
              summary={desk('desk-settings.remove-webhook')}
              question={desk('desk-settings.remove-webhook-sure')}
              yes={desk('desk-settings.remove-webhook-yes')}
              busy={desk('desk.one-moment')}
            />
          </div>
        </div>
        <section>
          <h2 className="text-xl">{desk('desk-settings.webhook-log')}</h2>
          {rows.length === 0 ? (
            <div className="mt-3">
              <Empty title={desk('desk-settings.no-message-yet')}>
                {desk('desk-settings.no-message-hint')}
              </Empty>
            </div>
          ) : (
            <ul className="mt-3 divide-y divide-line border-y border-line">
              {rows.map((row) => (
                <li key={row.id} className="py-2.5">
                  <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
                    <b className="w-28">{desk(`desk-settings.topic-${row.topic}`)}</b>
                    <span className="figures w-52 text-muted">{t.dateTime(row.createdAt)}</span>
                    <span
                      className={
                        row.state === 'sent'
                          ? 'text-open'
                          : row.state === 'failed'
                            ? 'text-closed'
                            : 'text-metered'
                      }
                    >
                      {desk(`desk-settings.message-${row.state}`, {
                        answer: row.answer,
                        attempts: row.attempts,
                      })}
                    </span>
                    {row.state !== 'waiting' && (
                      <span className="ml-auto">
                        <ConfirmAction
                          action={sendAgainAction}
                          fields={{ id: row.id, webhook: hook.id }}
                          summary={desk('desk-settings.send-again')}
                          question={desk('desk-settings.send-again-sure')}
                          yes={desk('desk-settings.send-again')}
                          busy={desk('desk.one-moment')}
                        />
                      </span>
                    )}
                  </div>
                  <details>
                    <summary className="w-fit text-[0.9375rem] text-spruce underline">
                      {desk('desk-settings.message-words')}
                    </summary>
                    <pre className="mt-1 overflow-x-auto rounded-md bg-sunken p-3 text-sm">
                      {JSON.stringify(JSON.parse(row.body), null, 2)}
                    </pre>
                  </details>
                </li>
              ))}
            </ul>
          )}
          <Pager
            page={page}
            total={total}
            rows={rowsOnPage}
            at={(to) => `/desk/settings/webhooks/${hook.id}?page=${to}`}
          />
        </section>
      </div>
    </>
  );
}
