import type { Metadata } from 'next';
import Link from 'next/link';
import { currentActor, shown } from '@/app/session';
import { formatDateTime } from '@/core/instants';
import { mySettings } from '@/people/services/my-sign-in';
import { browserName } from '@/people/ui/browser-name';
import { AddressForm, DeleteAccount, DetailsForm, PasswordForm } from '@/people/ui/settings-forms';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { Button } from '@/kit/button';
import {
  changeAddressAction,
  changeDetailsAction,
  changePasswordAction,
  deleteAccountAction,
  endSessionAction,
  signOutEverywhereAction,
} from './actions';

export const metadata: Metadata = { title: 'Your details', robots: { index: false } };

/** Who the member is to the site, how they sign in, and what the site keeps of them. */
export default async function SettingsPage() {
  const mine = await shown(mySettings(await currentActor()));
  const { hasPassword, sessions, zone } = mine;
  return (
    <div className="mx-auto grid w-full max-w-3xl gap-10 px-5 py-12">
      <div>
        <p>
          <Link href="/account" className="text-spruce underline">
            Your account
          </Link>
        </p>
        <h1 className="mt-1 text-4xl">Your details</h1>
      </div>
      <section aria-label="Name">
        <DetailsForm
          action={changeDetailsAction}
          name={mine.name}
          invoiceWords={mine.invoiceWords}
          country={mine.country}
        />
      </section>
      <section aria-label="Email address">
        <h2 className="text-2xl">Email address</h2>
        <p className="mt-2 break-words">
          You sign in with <b>{mine.email}</b>, and we write to you there.
        </p>
        <AddressForm action={changeAddressAction} hasPassword={hasPassword} />
      </section>
      <section aria-label="Signing in">
        <h2 className="text-2xl">{hasPassword ? 'Password' : 'Set a password'}</h2>
        {!hasPassword && (
          <p className="mt-2">You sign in with a code we email you. With a password you can do without it.</p>
        )}
        <PasswordForm action={changePasswordAction} hasPassword={hasPassword} />
      </section>
      <section aria-label="Where you are signed in">
        <h2 className="text-2xl">Where you are signed in</h2>
        <ul className="mt-3 divide-y divide-line border-y border-line">
          {sessions.map((session) => (
            <li key={session.id} className="flex flex-wrap items-center justify-between gap-3 py-3">
              <div>
                <p className="font-semibold">
                  {browserName(session.browser)}
                  {session.isThis && <span className="font-normal text-muted"> (this one)</span>}
                </p>
                <p className="figures text-[0.9375rem] text-muted">
                  Last seen {formatDateTime(session.lastSeenAt, zone)}
                </p>
              </div>
              {!session.isThis && (
                <ActionForm action={endSessionAction} label={`Sign out ${browserName(session.browser)}`}>
                  <input type="hidden" name="session" value={session.id} />
                  <FormMessage />
                  <SubmitButton busy="Signing out…" look="quiet">
                    Sign out
                  </SubmitButton>
                </ActionForm>
              )}
            </li>
          ))}
        </ul>
        <form action={signOutEverywhereAction} className="mt-4">
          <Button type="submit" look="quiet">
            Sign out everywhere
          </Button>
          <p className="mt-1 text-[0.9375rem] text-muted">On this device too.</p>
        </form>
      </section>
      <section aria-label="Your data">
        <h2 className="text-2xl">Your data</h2>
        <p className="mt-2">Everything the site knows about you, as one JSON file that programs can read.</p>
        <p className="mt-3">
          <a href="/account/data" download className="text-spruce underline">
            Download my data
          </a>
        </p>
      </section>
      {mine.mayDelete && (
        <section aria-label="Delete my account">
          <h2 className="text-2xl">Delete my account</h2>
          <p className="mt-2">
            What you hold ends at once and nothing more is charged. Your name, address, answers and mails are
            forgotten. What was paid stays in the books, and the invoices keep the name they were made out to,
            as the law asks. This cannot be undone.
          </p>
          <DeleteAccount action={deleteAccountAction} hasPassword={hasPassword} />
        </section>
      )}
    </div>
  );
}
