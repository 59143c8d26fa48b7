import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { readiness } from '@/desk/services/go-live';
import type { TestDataCounts } from '@/desk/services/go-live';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { LinkButton } from '@/kit/button';
import type { Words } from '@/words/words';
import { CheckField, TextField } from '@/kit/field';
import { PasswordAgain } from '@/people/ui/password-again';
import { clearTestDataAction, goLiveAction } from '../actions';
import { Sentence } from '@/kit/sentence';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-settings.going-live-settings') };

/** The one step from test to live: what prevents it, what changes, and what stays as it is. */
export default async function GoingLivePage() {
  const t = await deskWords();
  await requireStaff('set up the site');
  const { site, blockers, warnings, atCheckout, testData } = await shown(readiness(await currentActor()));
  return (
    <>
      {site.mode === 'live' ? (
        <Live
          t={t}
          since={site.wentLiveAt ? t.dateTime(site.wentLiveAt) : ''}
          cleared={site.testClearedAt && t.dateTime(site.testClearedAt)}
          clears={site.clearsTestData}
          testData={testData}
          siteName={site.name}
        />
      ) : (
        <div className="mt-5 grid max-w-5xl items-start gap-6 md:grid-cols-2">
          <section className="rounded-card border border-line bg-surface p-5">
            <h2 className="text-xl">{desk('desk-settings.before-you-go-live')}</h2>
            <ul className="mt-3 grid gap-2">
              {blockers.map((blocker) => (
                <li
                  key={blocker.problem.code}
                  className="rounded-md border-l-4 border-closed bg-closed-wash px-3 py-2"
                >
                  <p className="font-medium text-closed">{t.problem(blocker.problem)}</p>
                  <LinkButton href={`${blocker.href}?mode=live`} look="quiet" className="mt-2">
                    {desk('desk-settings.connect-one-in-live-mode')}
                  </LinkButton>
                </li>
              ))}
              {warnings.map((warning) => (
                <li
                  key={t.problem(warning)}
                  className="rounded-md border-l-4 border-metered bg-metered-wash px-3 py-2 text-metered"
                >
                  {t.problem(warning)}
                </li>
              ))}
              {atCheckout.length > 0 && (
                <li className="rounded-md border-l-4 border-open bg-open-wash px-3 py-2 text-open">
                  {desk('desk-settings.members-will-pay-by', { list: t.list(atCheckout) })}
                </li>
              )}
              {site.tax.way === 'none' && (
                <li className="text-muted">
                  <Sentence
                    words={desk('desk-settings.nothing-is-taxed')}
                    parts={{
                      link: (words) => (
                        <Link href="/desk/settings/tax" className="text-spruce underline">
                          {words}
                        </Link>
                      ),
                    }}
                  />
                </li>
              )}
            </ul>
            <h2 className="mt-6 text-xl">{desk('desk-settings.what-changes')}</h2>
            <ul className="mt-2 list-disc pl-5">
              <li>{desk('desk-settings.checkout-takes-real-money-only')}</li>
              <li>
                {desk('desk-settings.test-subscriptions-no-longer-give', {
                  members: t('live.members', { count: testData.holders }),
                })}
              </li>
              <li>
                {desk('desk-settings.stop-nothing-is-charged-or', {
                  subscriptions: t('live.subscriptions', { count: testData.running }),
                })}
              </li>
              {testData.agreements > 0 && (
                <li>
                  {desk('desk-settings.at-test-wallets-are-ended', {
                    approvals: t('live.approvals', { count: testData.agreements }),
                  })}
                </li>
              )}
              <li>{desk('desk-settings.the-rehearsal-clock-is-switched')}</li>
              <li>{desk('desk-settings.invoices-are-numbered-from-separately')}</li>
            </ul>
            <p className="mt-3 font-medium">{desk('desk-settings.you-cant-go-back-to')}</p>
          </section>
          <section className="rounded-card border border-line bg-surface p-5">
            <h2 className="text-xl">{desk('desk-settings.what-stays')}</h2>
            <p className="mt-2">
              {desk('desk-settings.tiers-offers-pages-rules-settings', { testData: testWords(testData, t) })}
            </p>
            {blockers.length > 0 ? (
              <p className="mt-5 font-medium text-closed">
                {desk('desk-settings.first-resolve-what-is-listed')}
              </p>
            ) : (
              <ActionForm action={goLiveAction} label={desk('desk.go-live')} className="mt-5 grid gap-4">
                <CheckField
                  name="clears"
                  value="yes"
                  label={desk('desk-settings.clear-the-test-data-as-well')}
                  hint={desk('desk-settings.deletes-test-subscriptions-payments-documents')}
                />
                <TextField
                  name="typed"
                  label={desk('desk-settings.to-confirm-type-the-name', { name: site.name })}
                  autoComplete="off"
                />
                <PasswordAgain />
                <FormMessage />
                <SubmitButton busy={desk('desk-settings.going-live')} className="w-fit px-8">
                  {desk('desk.go-live')}
                </SubmitButton>
              </ActionForm>
            )}
          </section>
        </div>
      )}
    </>
  );
}

const testWords = ({ subscriptions, payments, documents, messages }: TestDataCounts, t: Words): string =>
  t('live.test-data', { subscriptions, payments, documents, messages });

type LiveProps = {
  t: Words;
  since: string;
  cleared: string | null;
  clears: boolean;
  testData: TestDataCounts;
  siteName: string;
};

function Live({ t, since, cleared, clears, testData, siteName }: LiveProps) {
  // Messages may still come in about what has been deleted; they are not test data.
  const isEmpty = testData.subscriptions + testData.payments + testData.checkouts === 0;
  return (
    <div className="mt-5 grid max-w-2xl gap-6">
      <p className="text-lg">
        <Sentence
          words={desk('desk-settings.site-is-live', { since })}
          parts={{ b: (words) => <b className="text-open">{words}</b> }}
        />
      </p>
      <section className="rounded-card border border-line bg-surface p-5">
        <h2 className="text-xl">{desk('desk-settings.test-data')}</h2>
        {clears ? (
          <p className="mt-2" role="status">
            {desk('desk-settings.clearing-test-data', { approvals: testData.agreements })}
          </p>
        ) : isEmpty ? (
          <p className="mt-2">
            {cleared
              ? desk('desk-settings.test-data-cleared', { date: cleared })
              : desk('desk-settings.no-test-data')}
          </p>
        ) : (
          <>
            <p className="mt-2">
              {desk('desk-settings.there-are-none-of-it', { testData: testWords(testData, t) })}
            </p>
            <ActionForm
              action={clearTestDataAction}
              label={desk('desk-settings.clear-the-test-data')}
              className="mt-4 grid gap-4"
            >
              <TextField
                name="typed"
                label={desk('desk-settings.to-delete-it-for-good', { siteName })}
                autoComplete="off"
              />
              <FormMessage />
              <SubmitButton busy={desk('desk.asking')} look="bad" className="w-fit">
                {desk('desk-settings.clear-the-test-data')}
              </SubmitButton>
            </ActionForm>
          </>
        )}
      </section>
    </div>
  );
}
