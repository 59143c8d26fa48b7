import type { Metadata } from 'next';
import Link from 'next/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { readiness } from '@/desk/services/go-live';
import type { TestDataCounts } from '@/desk/services/go-live';
import { SettingsHead } from '@/desk/ui/settings-head';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { LinkButton } from '@/kit/button';
import type { Words } from '@/words/words';
import { CheckField, TextField } from '@/kit/field';
import { PasswordAgain } from '@/people/ui/password-again';
import { clearTestDataAction, goLiveAction } from '../actions';

export const metadata: Metadata = { title: 'Going live · Settings' };

/** The one step from test to live: what stands against it, what changes, and what stays behind. */
export default async function GoingLivePage() {
  const t = await deskWords();
  await requireStaff('set up the site');
  const { site, blockers, warnings, ways, testData } = await shown(readiness(await currentActor()));
  return (
    <>
      <SettingsHead here="live" />
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
            <h2 className="text-xl">Before you go live</h2>
            <ul className="mt-3 grid gap-2">
              {blockers.map((blocker) => (
                <li
                  key={blocker.problem.code}
                  className="rounded-md border-l-4 border-closed bg-closed-wash px-3 py-2"
                >
                  <p className="font-medium text-closed">{t.problem(blocker.problem)}</p>
                  <LinkButton href={`${blocker.href}?mode=live`} look="quiet" className="mt-2">
                    Connect one in live mode
                  </LinkButton>
                </li>
              ))}
              {warnings.map((warning) => (
                <li
                  key={warning}
                  className="rounded-md border-l-4 border-metered bg-metered-wash px-3 py-2 text-metered"
                >
                  {warning}
                </li>
              ))}
              {ways.length > 0 && (
                <li className="rounded-md border-l-4 border-open bg-open-wash px-3 py-2 text-open">
                  Members will pay by {ways.join(', ')}.
                </li>
              )}
              {site.tax.way === 'none' && (
                <li className="text-muted">
                  Nothing is taxed.{' '}
                  <Link href="/desk/settings/tax" className="text-spruce underline">
                    See whether that is right
                  </Link>
                </li>
              )}
            </ul>
            <h2 className="mt-6 text-xl">What changes</h2>
            <ul className="mt-2 list-disc pl-5">
              <li>Checkout takes real money. Only staff can still try it in test mode.</li>
              <li>
                Test subscriptions no longer give access: {t('live.members', { count: testData.holders })}{' '}
                would have to join again.
              </li>
              <li>
                {t('live.subscriptions', { count: testData.running })} stop: nothing is charged or emailed for
                them.
              </li>
              {testData.agreements > 0 && (
                <li>
                  {t('live.approvals', { count: testData.agreements })} at test wallets are ended there.
                </li>
              )}
              <li>The rehearsal clock is switched off: the site uses real time.</li>
              <li>Invoices are numbered from 1, separately from test invoices.</li>
            </ul>
            <p className="mt-3 font-medium">You can’t go back to test mode.</p>
          </section>
          <section className="rounded-card border border-line bg-surface p-5">
            <h2 className="text-xl">What stays</h2>
            <p className="mt-2">
              Tiers, offers, pages, rules, settings and people’s accounts stay as they are. Test data (
              {testWords(testData, t)}) is kept apart from what is real until you clear it.
            </p>
            {blockers.length > 0 ? (
              <p className="mt-5 font-medium text-closed">First resolve what is listed beside this.</p>
            ) : (
              <ActionForm action={goLiveAction} label="Go live" className="mt-5 grid gap-4">
                <CheckField
                  name="clears"
                  value="yes"
                  label="Clear the test data as well"
                  hint="Deletes test subscriptions, payments, documents and messages. You can also do it later."
                />
                <TextField
                  name="typed"
                  label={`To confirm, type the name of the site: ${site.name}`}
                  autoComplete="off"
                />
                <PasswordAgain />
                <FormMessage />
                <SubmitButton busy="Going live…" className="w-fit px-8">
                  Go live
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
  // A gateway may still have a word to say about what is gone: that is no data of anybody's.
  const isEmpty = testData.subscriptions + testData.payments + testData.checkouts === 0;
  return (
    <div className="mt-5 grid max-w-2xl gap-6">
      <p className="text-lg">
        The site is <b className="text-open">live</b> since {since}. Money is real.
      </p>
      <section className="rounded-card border border-line bg-surface p-5">
        <h2 className="text-xl">Test data</h2>
        {clears ? (
          <p className="mt-2" role="status">
            It is being cleared
            {testData.agreements > 0 &&
              `; ${t('live.approvals', { count: testData.agreements })} at test wallets must be ended there first`}
            . Load the page again in a moment.
          </p>
        ) : isEmpty ? (
          <p className="mt-2">There is none{cleared && `; it was cleared on ${cleared}`}.</p>
        ) : (
          <>
            <p className="mt-2">
              There are {testWords(testData, t)}. None of it opens anything or is charged.
            </p>
            <ActionForm action={clearTestDataAction} label="Clear the test data" className="mt-4 grid gap-4">
              <TextField
                name="typed"
                label={`To delete it for good, type the name of the site: ${siteName}`}
                autoComplete="off"
              />
              <FormMessage />
              <SubmitButton busy="Asking…" look="bad" className="w-fit">
                Clear the test data
              </SubmitButton>
            </ActionForm>
          </>
        )}
      </section>
    </div>
  );
}
