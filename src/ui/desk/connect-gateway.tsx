import { ActionForm, FormMessage, SubmitButton, type FormAction } from '../kit/action-form';
import { TextField } from '../kit/field';

type Props = { action: FormAction; mode: 'test' | 'live'; whereToFindKeys: string; isFirst: boolean };

/** Connects Curlew Cards by its two keys; they are checked on the spot. */
export function ConnectGateway({ action, mode, whereToFindKeys, isFirst }: Props) {
  return (
    <section className="rounded-card border border-line bg-surface p-5">
      <h2 className="text-xl">
        {isFirst ? `Connect Curlew Cards in ${mode} mode` : 'New keys for Curlew Cards'}
      </h2>
      <p className="mt-1 text-muted">
        Copy both {mode}-mode keys from{' '}
        <a className="text-spruce underline" href={whereToFindKeys} target="_blank" rel="noreferrer">
          your page at Curlew Cards
        </a>
        . The secret key is kept sealed and never shown again.
      </p>
      <ActionForm action={action} label="Connect Curlew Cards" emptyWhenDone className="mt-4 grid gap-4">
        <FormMessage />
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
        <SubmitButton busy="Asking Curlew Cards…" className="w-fit">
          Check and connect
        </SubmitButton>
      </ActionForm>
    </section>
  );
}
