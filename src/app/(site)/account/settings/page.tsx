import type { Metadata } from 'next';
import Link from 'next/link';
import { redirect } from 'next/navigation';
import { currentMember } from '@/app/session';
import { listCountries } from '@/services/countries';
import { currentSite } from '@/services/site';
import { DeleteAccount, DetailsForm, PasswordForm } from '@/ui/site/settings-forms';
import { Button } from '@/ui/kit/button';
import {
  changeDetailsAction,
  changePasswordAction,
  deleteAccountAction,
  signOutEverywhereAction,
} from './actions';

export const metadata: Metadata = { title: 'Your details', robots: { index: false } };

/** Who the member is to the site, how they sign in, and what the site keeps of them. */
export default async function SettingsPage() {
  const member = await currentMember();
  if (!member) redirect('/sign-in?to=/account/settings');
  const { mayDeleteAccount, tax } = await currentSite();
  const hasPassword = member.passwordHash !== null;
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
      <section aria-label="Name and address">
        <DetailsForm
          action={changeDetailsAction}
          name={member.name}
          email={member.email}
          invoiceWords={member.invoiceWords}
          country={tax.way === 'none' ? null : { code: member.country, all: listCountries() }}
        />
      </section>
      <section aria-label="Signing in">
        <h2 className="text-2xl">Signing in</h2>
        <PasswordForm action={changePasswordAction} hasPassword={hasPassword} />
        <form action={signOutEverywhereAction} className="mt-6">
          <p className="mb-2 text-muted">
            On every device, this one too: whoever is signed in has to sign in again.
          </p>
          <Button type="submit" look="quiet">
            Sign out everywhere
          </Button>
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
      {mayDeleteAccount && !member.staffRole && (
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
