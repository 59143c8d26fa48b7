import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Tabs } from '@/kit/tabs';
import { TextField } from '@/kit/field';
import { PasswordAgain } from '@/people/ui/password-again';

type Props = {
  mode: 'test' | 'live';
  whereToFindKeys: string;
  byKeys: FormAction;
  byConsent: FormAction;
  byDetails: FormAction;
};

const BOX = 'rounded-card border border-line bg-surface p-5';

/** The ways of taking money that can be connected: by keys, by consent on the gateway's page, or by telling whom to pay. */
export function ConnectGateways({ mode, whereToFindKeys, byKeys, byConsent, byDetails }: Props) {
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl">Connect in {mode} mode</h2>
        <Tabs
          label="Mode"
          here={mode}
          tabs={[
            { id: 'test', name: 'Test', path: '/desk/money/gateways?mode=test' },
            { id: 'live', name: 'Live', path: '/desk/money/gateways?mode=live' },
          ]}
        />
      </div>
      <section className={BOX} aria-label="Connect Curlew Cards">
        <h2 className="text-xl">Curlew Cards</h2>
        <p className="mt-1 text-muted">
          Cards. Copy both {mode}-mode keys from{' '}
          <a className="text-spruce underline" href={whereToFindKeys} target="_blank" rel="noreferrer">
            your page at Curlew Cards
          </a>
          . The secret key is kept sealed and never shown again.
        </p>
        <ActionForm action={byKeys} label="Connect Curlew Cards" emptyWhenDone className="mt-4 grid gap-4">
          <FormMessage />
          <input type="hidden" name="mode" value={mode} />
          <TextField
            name="siteKey"
            label="Site key"
            autoComplete="off"
            spellCheck={false}
            placeholder={`curlew_${mode}_site_…`}
          />
          <TextField
            name="secretKey"
            label="Secret key"
            type="password"
            autoComplete="off"
            spellCheck={false}
            placeholder={`curlew_${mode}_secret_…`}
          />
          <PasswordAgain />
          <SubmitButton busy="Asking Curlew Cards…" className="w-fit">
            Check and connect
          </SubmitButton>
        </ActionForm>
      </section>
      <section className={BOX} aria-label="Connect Dunlin Wallet">
        <h2 className="text-xl">Dunlin Wallet</h2>
        <p className="mt-1 text-muted">
          A wallet that members approve once and that bills by itself. You give consent on its own page, in{' '}
          {mode} mode, and come back here.
        </p>
        <ActionForm action={byConsent} label="Connect Dunlin Wallet" className="mt-4 grid gap-3">
          <input type="hidden" name="gateway" value="dunlin-wallet" />
          <input type="hidden" name="mode" value={mode} />
          <PasswordAgain />
          <SubmitButton busy="Going there…" className="w-fit">
            Go to Dunlin Wallet
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      </section>
      <section className={BOX} aria-label="Connect Bank transfer">
        <h2 className="text-xl">Bank transfer</h2>
        <p className="mt-1 text-muted">
          Each payment has a reference. You confirm it, or import your bank’s statement, and it is matched.
        </p>
        <details className="mt-3">
          <summary className="w-fit list-none text-spruce underline">Take transfers</summary>
          <ActionForm action={byDetails} label="Take transfers" emptyWhenDone className="mt-3 grid gap-4">
            <FormMessage />
            <input type="hidden" name="mode" value={mode} />
            <TextField name="payee" label="Name on the account" />
            <TextField name="account" label="Account" hint="As people write it on a transfer." />
            <TextField name="bank" label="Bank (optional)" />
            <TextField
              name="daysToPay"
              label="Days to pay"
              inputMode="numeric"
              defaultValue="14"
              className="w-32"
            />
            <PasswordAgain />
            <SubmitButton busy="Keeping…" className="w-fit">
              Take transfers
            </SubmitButton>
          </ActionForm>
        </details>
      </section>
    </div>
  );
}
