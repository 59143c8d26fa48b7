import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Tabs } from '@/kit/tabs';
import { TextField } from '@/kit/field';
import { PasswordAgain } from '@/people/ui/password-again';

/** A gateway as the forms for connecting see it; `keys`: where they are found, and how they begin. */
export type Connectable = {
  id: string;
  name: string;
  connectedBy: 'keys' | 'consent' | 'details';
  keys: { page: string; siteKey: string; secretKey: string } | null;
};
type Props = {
  mode: 'test' | 'live';
  gateways: Connectable[];
  byKeys: FormAction;
  byConsent: FormAction;
  byDetails: FormAction;
};

const BOX = 'rounded-card border border-line bg-surface p-5';

/** The ways of taking money that can be connected: by keys, by consent on the gateway's page, or by telling whom to pay. */
export function ConnectGateways({ mode, gateways, byKeys, byConsent, byDetails }: Props) {
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
      {gateways.map((gateway) =>
        gateway.connectedBy === 'keys' ? (
          <ByKeys key={gateway.id} mode={mode} gateway={gateway} action={byKeys} />
        ) : gateway.connectedBy === 'consent' ? (
          <ByConsent key={gateway.id} mode={mode} gateway={gateway} action={byConsent} />
        ) : (
          <ByDetails key={gateway.id} mode={mode} gateway={gateway} action={byDetails} />
        ),
      )}
    </div>
  );
}

type One = { mode: 'test' | 'live'; gateway: Connectable; action: FormAction };

/** Both keys are pasted. */
function ByKeys({ mode, gateway, action }: One) {
  return (
    <section className={BOX} aria-label={`Connect ${gateway.name}`}>
      <h2 className="text-xl">{gateway.name}</h2>
      <p className="mt-1 text-muted">
        Cards. Copy both {mode}-mode keys from{' '}
        <a className="text-spruce underline" href={gateway.keys?.page} target="_blank" rel="noreferrer">
          your page at {gateway.name}
        </a>
        . The secret key is stored encrypted and never shown again.
      </p>
      <ActionForm action={action} label={`Connect ${gateway.name}`} emptyWhenDone className="mt-4 grid gap-4">
        <FormMessage />
        <input type="hidden" name="gateway" value={gateway.id} />
        <input type="hidden" name="mode" value={mode} />
        <TextField
          name="siteKey"
          label="Site key"
          autoComplete="off"
          spellCheck={false}
          placeholder={gateway.keys?.siteKey}
        />
        <TextField
          name="secretKey"
          label="Secret key"
          type="password"
          autoComplete="off"
          spellCheck={false}
          placeholder={gateway.keys?.secretKey}
        />
        <PasswordAgain />
        <SubmitButton busy={`Asking ${gateway.name}…`} className="w-fit">
          Check and connect
        </SubmitButton>
      </ActionForm>
    </section>
  );
}

/** The owner consents on the page of the gateway. */
function ByConsent({ mode, gateway, action }: One) {
  return (
    <section className={BOX} aria-label={`Connect ${gateway.name}`}>
      <h2 className="text-xl">{gateway.name}</h2>
      <p className="mt-1 text-muted">
        A wallet that members approve once and that bills by itself. You give consent on its own page, in{' '}
        {mode} mode, and come back here.
      </p>
      <ActionForm action={action} label={`Connect ${gateway.name}`} className="mt-4 grid gap-3">
        <input type="hidden" name="gateway" value={gateway.id} />
        <input type="hidden" name="mode" value={mode} />
        <PasswordAgain />
        <SubmitButton busy="Going there…" className="w-fit">
          Go to {gateway.name}
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    </section>
  );
}

/** The owner says whom members pay. */
function ByDetails({ mode, gateway, action }: One) {
  return (
    <section className={BOX} aria-label={`Connect ${gateway.name}`}>
      <h2 className="text-xl">{gateway.name}</h2>
      <p className="mt-1 text-muted">
        Each payment has a reference. You confirm it, or import your bank’s statement, and it is matched.
      </p>
      <details className="mt-3">
        <summary className="w-fit list-none text-spruce underline">Take transfers</summary>
        <ActionForm action={action} label="Take transfers" emptyWhenDone className="mt-3 grid gap-4">
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
          <SubmitButton busy="Saving…" className="w-fit">
            Take transfers
          </SubmitButton>
        </ActionForm>
      </details>
    </section>
  );
}
