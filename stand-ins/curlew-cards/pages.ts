import type { Faults } from '../lib/faults';
import { hookTable } from '../lib/hooks';
import { escape, page, READ_STYLE } from '../lib/pages';
import { paymentTable } from '../lib/payments';
import { spaced, TEST_CARDS } from './cards';
import type { Account, Data } from './state';

/** The card form in the frame. The number goes from here to this server, and nowhere else. */
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
<div id="ask" hidden role="group" aria-label="Your bank asks"><p><b>Your bank asks: is it you who pays?</b></p><button type="button" id="yes">Yes, it is me</button> <button type="button" id="no">No</button></div>
${cards}
<script nonce="${nonce}">
  const key = ${JSON.stringify(account.siteKey)};
  const field = (name) => document.getElementById(name);
  const show = (name, text) => { field(name + '-problem').textContent = text; field(name).setAttribute('aria-invalid', String(text !== '')); };
  const clear = () => ['number', 'expires', 'code'].forEach((name) => show(name, ''));
  const tell = (message, to) => (to?.source ?? parent).postMessage(message, to?.origin ?? ${JSON.stringify('*')});
  document.querySelectorAll('[data-card]').forEach((button) => button.addEventListener('click', () => {
    clear(); field('number').value = button.dataset.card; field('expires').value = button.dataset.expires; field('code').value = '123';
    tell({ cardFrame: 'filled' });
  }));
  ['number', 'expires', 'code'].forEach((name) => field(name).addEventListener('input', () => show(name, '')));
  // Enter in this form presses the page's own button.
  field('card').addEventListener('submit', (event) => { event.preventDefault(); tell({ cardFrame: 'enter' }); });
  addEventListener('message', async (event) => {
    if (event.source !== parent) return;
    if (event.data?.cardFrame === 'size') return size();
    if (event.data?.cardFrame !== 'tokenise') return;
    clear();
    try {
      const response = await fetch('/frame/tokens', { method: 'POST', headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ key, number: field('number').value, expires: field('expires').value, code: field('code').value }) });
      const body = await response.json();
      if (response.ok) return body.asks ? ask(body.token, event) : tell({ cardFrame: 'token', token: body.token }, event);
      const name = ['number', 'expires', 'code'].includes(body.error.code) ? body.error.code : 'number';
      show(name, body.error.message); field(name).focus();
      tell({ cardFrame: 'problem', message: body.error.message }, event);
    } catch { tell({ cardFrame: 'problem', message: 'The card service could not be reached. Try again in a moment.' }, event); }
  });
  // The bank of some cards wants to hear from the payer first.
  const ask = (token, event) => {
    const box = field('ask'); box.hidden = false; tell({ cardFrame: 'asking' }, event); field('yes').focus();
    field('no').onclick = () => { box.hidden = true; tell({ cardFrame: 'problem', message: 'You did not confirm the payment, so nothing was charged.' }, event); };
    field('yes').onclick = async () => {
      box.hidden = true;
      await fetch('/frame/confirm', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ token }) });
      tell({ cardFrame: 'token', token }, event);
    };
  };
  const size = () => tell({ cardFrame: 'height', height: document.documentElement.scrollHeight });
  new ResizeObserver(size).observe(document.body);
  tell({ cardFrame: 'ready' });
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
export function homePage(data: Data, faults: Faults, nonce: string): string {
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
<style nonce="${nonce}">${READ_STYLE}</style>
<h1>Curlew Cards</h1><p class="soft">A simulated card gateway. No card, bank or money here is real.</p>
${accounts.join('')}
<h2>Test cards</h2><table>${cards.join('')}</table>
<h2>Addresses for messages</h2>${hookTable(data.hooks, data.accounts)}
<h2>Faults</h2>${faults.form()}
<h2>Payments</h2>${paymentTable(data.payments)}`,
    nonce,
  );
}
