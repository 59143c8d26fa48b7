import { refuse, type Answer, type Body } from './http';
import { newHook, type Hook } from './outbox';
import { escape } from './pages';

/** Registers an address for an account's messages, and what its owner calls the account; the same address again gets a new secret. */
export function registerHook(
  data: { hooks: Hook[] },
  account: { id: string; name: string },
  body: Body,
): Answer {
  if (typeof body.address !== 'string' || !URL.canParse(body.address))
    return refuse(422, 'bad-address', 'address must be a URL');
  if (typeof body.name === 'string' && body.name) account.name = body.name.slice(0, 80);
  data.hooks = data.hooks.filter((hook) => hook.account !== account.id || hook.address !== body.address);
  const hook = newHook(account.id, body.address);
  data.hooks.push(hook);
  return { status: 201, body: { id: hook.id, secret: hook.secret } };
}

/** Sends a test message to a registered address, or to all of the account. */
export function pingHook(
  data: { hooks: Hook[] },
  accountId: string,
  hookId: string,
  send: (hook: Hook, message: object) => void,
): Answer {
  const own = data.hooks.filter(
    (hook) => hook.account === accountId && (hookId === 'all' || hook.id === hookId),
  );
  if (own.length === 0) return refuse(404, 'unknown-hook', 'no such webhook');
  return { status: 202, body: {}, after: () => own.forEach((hook) => send(hook, { type: 'ping' })) };
}

/** Registering an address for messages by hand, as an owner does whose software could not. */
export function addHookByHand(
  hooks: Hook[],
  accounts: { id: string; mode: string }[],
  form: URLSearchParams,
): void {
  const account = accounts.find((one) => one.mode === form.get('mode'));
  const address = (form.get('address') ?? '').trim();
  if (account && URL.canParse(address)) hooks.push(newHook(account.id, address));
}

export function hookTable(hooks: Hook[], accounts: { id: string; mode: string }[]): string {
  const rows = hooks.map((hook) => {
    const mode = accounts.find((account) => account.id === hook.account)?.mode ?? '';
    return `<tr data-hook="${escape(hook.address)}"><td>${mode}</td><td><code>${escape(hook.address)}</code></td><td><code data-secret>${hook.secret}</code></td></tr>`;
  });
  return `${rows.length > 0 ? `<table><tr><th>Mode</th><th>Address</th><th>Signing secret</th></tr>${rows.join('')}</table>` : '<p class="soft">None yet.</p>'}
    <form method="post" action="/hooks" class="row"><div><label for="mode">Mode</label><select id="mode" name="mode"><option>test</option><option>live</option></select></div>
    <div><label for="address">Address</label><input id="address" name="address" type="url" size="50"></div><button>Add</button></form>`;
}
