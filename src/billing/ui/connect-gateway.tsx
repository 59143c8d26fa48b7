import clsx from 'clsx';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Tabs } from '@/kit/tabs';
import { TextField } from '@/kit/field';
import { PasswordAgain } from '@/people/ui/password-again';
import { Sentence } from '@/kit/sentence';
import { desk } from '@/words/desk';

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
  /** Side by side, where the screen has nothing else. */
  isWide: boolean;
  byKeys: FormAction;
  byConsent: FormAction;
  byDetails: FormAction;
};

const BOX = 'rounded-card border border-line bg-surface p-5';

/** The gateways that can be connected: by keys, by consent on the gateway's page, or by naming the account to pay into. */
export function ConnectGateways({ mode, gateways, isWide, byKeys, byConsent, byDetails }: Props) {
  return (
    <div className={clsx('grid items-start gap-4', isWide && 'md:grid-cols-2 xl:grid-cols-3')}>
      <div className="col-span-full flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl">{desk('desk-money.connect-in-mode', { mode })}</h2>
        <Tabs
          label={desk('desk-money.mode')}
          here={mode}
          tabs={[
            { id: 'test', name: desk('desk-money.test'), path: '/desk/money/gateways?mode=test' },
            { id: 'live', name: desk('desk-money.live'), path: '/desk/money/gateways?mode=live' },
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
    <section className={BOX} aria-label={desk('desk-money.connect', { name: gateway.name })}>
      <h2 className="text-xl">{gateway.name}</h2>
      <p className="mt-1 text-muted">
        <Sentence
          words={desk('desk-money.copy-both-keys', { mode, gateway: gateway.name })}
          parts={{
            link: (words) => (
              <a className="text-spruce underline" href={gateway.keys?.page} target="_blank" rel="noreferrer">
                {words}
              </a>
            ),
          }}
        />
      </p>
      <ActionForm
        action={action}
        label={desk('desk-money.connect', { name: gateway.name })}
        emptyWhenDone
        className="mt-4 grid gap-4"
      >
        <FormMessage />
        <input type="hidden" name="gateway" value={gateway.id} />
        <input type="hidden" name="mode" value={mode} />
        <TextField
          name="siteKey"
          label={desk('desk-money.site-key')}
          autoComplete="off"
          spellCheck={false}
          placeholder={gateway.keys?.siteKey}
        />
        <TextField
          name="secretKey"
          label={desk('desk-money.secret-key')}
          type="password"
          autoComplete="off"
          spellCheck={false}
          placeholder={gateway.keys?.secretKey}
        />
        <PasswordAgain />
        <SubmitButton busy={desk('desk-money.asking', { name: gateway.name })} className="w-fit">
          {desk('desk-money.check-and-connect')}
        </SubmitButton>
      </ActionForm>
    </section>
  );
}

/** The owner consents on the page of the gateway. */
function ByConsent({ mode, gateway, action }: One) {
  return (
    <section className={BOX} aria-label={desk('desk-money.connect', { name: gateway.name })}>
      <h2 className="text-xl">{gateway.name}</h2>
      <p className="mt-1 text-muted">{desk('desk-money.a-wallet-that-members-approve', { mode })}</p>
      <ActionForm
        action={action}
        label={desk('desk-money.connect', { name: gateway.name })}
        className="mt-4 grid gap-3"
      >
        <input type="hidden" name="gateway" value={gateway.id} />
        <input type="hidden" name="mode" value={mode} />
        <PasswordAgain />
        <SubmitButton busy={desk('desk-money.going-there')} className="w-fit">
          {desk('desk-money.go-to', { name: gateway.name })}
        </SubmitButton>
        <FormMessage />
      </ActionForm>
    </section>
  );
}

/** The owner names the account that members pay into. */
function ByDetails({ mode, gateway, action }: One) {
  return (
    <section className={BOX} aria-label={desk('desk-money.connect', { name: gateway.name })}>
      <h2 className="text-xl">{gateway.name}</h2>
      <p className="mt-1 text-muted">{desk('desk-money.each-payment-has-a-reference')}</p>
      <details className="mt-3">
        <summary className="w-fit list-none text-spruce underline">
          {desk('desk-money.take-transfers')}
        </summary>
        <ActionForm
          action={action}
          label={desk('desk-money.take-transfers')}
          emptyWhenDone
          className="mt-3 grid gap-4"
        >
          <FormMessage />
          <input type="hidden" name="mode" value={mode} />
          <TextField name="payee" label={desk('desk-money.name-on-the-account')} />
          <TextField
            name="account"
            label={desk('desk.account')}
            hint={desk('desk-money.as-people-write-it-on')}
          />
          <TextField name="bank" label={desk('desk-money.bank-optional')} />
          <TextField
            name="daysToPay"
            label={desk('desk-money.days-to-pay')}
            inputMode="numeric"
            defaultValue="14"
            className="w-32"
          />
          <PasswordAgain />
          <SubmitButton busy={desk('desk.saving')} className="w-fit">
            {desk('desk-money.take-transfers')}
          </SubmitButton>
        </ActionForm>
      </details>
    </section>
  );
}
