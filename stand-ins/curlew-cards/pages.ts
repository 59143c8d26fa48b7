import { spaced, TEST_CARDS } from './cards';
import type { Account, Data, Payment } from './state';

const escape = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

const STYLE = `
  :root { color-scheme: light dark; font: 15px/1.45 system-ui, sans-serif; --line: light-dark(#d8d8dd, #45454d); --soft: light-dark(#5d5d68, #a8a8b3); --bad: light-dark(#a32020, #ff9c9c); }
  * { box-sizing: border-box; } body { margin: 0; background: transparent; color: light-dark(#22222a, #ececf1); }
  label { display: block; font-weight: 600; margin-bottom: .2rem; } small, .soft { color: var(--soft); }
  input { width: 100%; font: inherit; padding: .5rem .6rem; border: 1px solid var(--line); border-radius: .4rem; background: light-dark(#fff, #1b1b20); color: inherit; }
  input[aria-invalid=true] { border-color: var(--bad); } .problem { color: var(--bad); min-height: 1.3em; margin: .15rem 0 0; font-size: .9rem; }
  button { font: inherit; cursor: pointer; } table { border-collapse: collapse; width: 100%; } th, td { text-align: left; padding: .35rem .6rem; border-bottom: 1px solid var(--line); vertical-align: top; }
  code { overflow-wrap: anywhere; }`;

/** The card form that stands in the frame. The number goes from here to this server, and nowhere else. */
export function framePage(account: Account | undefined, nonce: string): string {
  if (!account)
    return page('Card', `<p role="alert">This card form is not set up: its site key is unknown.</p>`, nonce);
  const cards = account.mode === 'test' ? testCards() : '';
  return page(
    'Card',
    `
<style nonce="${nonce}">
  form { display: grid; grid-template-columns: 2fr 1fr 1fr; gap: 0 .8rem; }
  .cards { border: 1px dashed var(--line); border-radius: .5rem; padding: .5rem .7rem; margin-top: .2rem; }
  .cards div { display: flex; flex-wrap: wrap; gap: .4rem; margin-top: .35rem; }
  .cards button { border: 1px solid var(--line); border-radius: 1rem; background: transparent; color: inherit; padding: .1rem .7rem; }
  @media (max-width: 420px) { form { grid-template-columns: 1fr 1fr; } .number { grid-column: 1 / -1; } }
</style>
<form id="card" novalidate>
  <div class="number"><label for="number">Card number</label><input id="number" inputmode="numeric" autocomplete="cc-number" aria-describedby="number-problem"><p class="problem" id="number-problem" role="alert"></p></div>
  <div><label for="expires">Expires</label><input id="expires" placeholder="MM/YY" autocomplete="cc-exp" aria-describedby="expires-problem"><p class="problem" id="expires-problem" role="alert"></p></div>
  <div><label for="code">Code</label><input id="code" inputmode="numeric" placeholder="3 digits" autocomplete="cc-csc" aria-describedby="code-problem"><p class="problem" id="code-problem" role="alert"></p></div>
</form>
${cards}
<script nonce="${nonce}">
  const key = ${JSON.stringify(account.siteKey)};
  const field = (name) => document.getElementById(name);
  const show = (name, text) => { field(name + '-problem').textContent = text; field(name).setAttribute('aria-invalid', String(text !== '')); };
  const clear = () => ['number', 'expires', 'code'].forEach((name) => show(name, ''));
  const tell = (message, to) => (to?.source ?? parent).postMessage(message, to?.origin ?? ${JSON.stringify('*')});
  document.querySelectorAll('[data-card]').forEach((button) => button.addEventListener('click', () => {
    clear(); field('number').value = button.dataset.card; field('expires').value = button.dataset.expires; field('code').value = '123';
    tell({ curlew: 'filled' });
  }));
  ['number', 'expires', 'code'].forEach((name) => field(name).addEventListener('input', () => show(name, '')));
  // Enter in this form stands for the page's own button.
  field('card').addEventListener('submit', (event) => { event.preventDefault(); tell({ curlew: 'enter' }); });
  addEventListener('message', async (event) => {
    if (event.source !== parent) return;
    if (event.data?.curlew === 'size') return size();
    if (event.data?.curlew !== 'tokenise') return;
    clear();
    try {
      const response = await fetch('/frame/tokens', { method: 'POST', headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ key, number: field('number').value, expires: field('expires').value, code: field('code').value }) });
      const body = await response.json();
      if (response.ok) return tell({ curlew: 'token', token: body.token }, event);
      const name = ['number', 'expires', 'code'].includes(body.error.code) ? body.error.code : 'number';
      show(name, body.error.message); field(name).focus();
      tell({ curlew: 'problem', message: body.error.message }, event);
    } catch { tell({ curlew: 'problem', message: 'The card service could not be reached. Try again in a moment.' }, event); }
  });
  const size = () => tell({ curlew: 'height', height: document.documentElement.scrollHeight });
  new ResizeObserver(size).observe(document.body);
  tell({ curlew: 'ready' });
</script>`,
    nonce,
  );
}

function testCards(): string {
  const year = String(new Date().getUTCFullYear() + 4).slice(-2);
  const buttons = TEST_CARDS.map(
    (card) =>
      `<button type="button" data-card="${spaced(card.number)}" data-expires="09/${year}" title="${escape(card.tells)}">${escape(card.title)}</button>`,
  );
  return `<div class="cards"><small>Test cards: no real money. One click fills one in.</small><div>${buttons.join('')}</div></div>`;
}

/** The stand-in's own page: its keys, its test cards, what it was asked to do, and its faults. */
export function homePage(data: Data, slowMs: number, nonce: string): string {
  const accounts = data.accounts.map(
    (a) => `<h2>${escape(a.name)}, ${a.mode} mode</h2><table>
      <tr><th>Site key</th><td><code data-key="${a.mode}-site">${a.siteKey}</code></td></tr>
      <tr><th>Secret key</th><td><code data-key="${a.mode}-secret">${a.secretKey}</code></td></tr></table>`,
  );
  const cards = TEST_CARDS.map(
    (c) =>
      `<tr><td><code>${spaced(c.number)}</code></td><td>${escape(c.title)}: ${escape(c.tells)}</td></tr>`,
  );
  return page(
    'Curlew Cards',
    `
<style nonce="${nonce}">body { max-width: 60rem; margin: 2rem auto; padding: 0 1rem; background: light-dark(#f4f4f7, #16161a); } h1 { margin-bottom: 0; } form { margin: 1rem 0; } input { width: 8rem; }</style>
<h1>Curlew Cards</h1><p class="soft">A simulated card gateway. No card, bank or money here is real.</p>
${accounts.join('')}
<h2>Test cards</h2><table>${cards.join('')}</table>
<h2>Faults</h2><form method="post" action="/faults"><label for="slow">Answer payments after (milliseconds)</label><input id="slow" name="slowMs" type="number" min="0" max="60000" value="${slowMs}"> <button>Set</button></form>
<h2>Payments</h2>${paymentTable(data.payments)}`,
    nonce,
  );
}

function paymentTable(payments: Payment[]): string {
  if (payments.length === 0) return '<p class="soft">None yet.</p>';
  const rows = payments
    .slice(-100)
    .reverse()
    .map(
      (p) =>
        `<tr><td>${p.at.slice(0, 19).replace('T', ' ')}</td><td>${p.amount} ${escape(p.currency)}</td><td>${p.state}${p.code ? `: ${p.code}` : ''}</td><td>${escape(p.note)}</td></tr>`,
    );
  return `<p class="soft">${payments.length} in all; the newest 100.</p><table><tr><th>When</th><th>Minor units</th><th>Outcome</th><th>Note</th></tr>${rows.join('')}</table>`;
}

function page(title: string, body: string, nonce: string): string {
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${title}</title><style nonce="${nonce}">${STYLE}</style><body>${body}</body></html>`;
}
