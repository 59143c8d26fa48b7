import type { Faults } from '../lib/faults';
import { hookTable } from '../lib/hooks';
import { escape, page, READ_STYLE } from '../lib/pages';
import { paymentTable } from '../lib/payments';
import { PURSES, type Agreement, type Data, type Purse, type Stage } from './state';

const TELLS: Record<Purse, string> = {
  full: 'Full: every bill is paid',
  empty: 'Empty: no bill is paid',
  empties: 'Empties: the first bill is paid, later ones are not',
  'fills-up': 'Fills up: the second bill fails once, then is paid',
};

const frame = (title: string, body: string, nonce: string): string =>
  page(
    title,
    `<style nonce="${nonce}">${READ_STYLE} .card { max-width: 30rem; margin: 12vh auto; border: 1px solid var(--line); border-radius: .8rem; padding: 1.5rem; background: light-dark(#fff, #1f1f25); } .go { background: #22405f; color: #fff; border: 0; border-radius: .4rem; padding: .55rem 1.2rem; }</style>${body}`,
    nonce,
  );

function stageWords({ amount, first, every, times }: Stage, currency: string): string {
  const money = (n: number): string => `${(n / 100).toFixed(2)} ${currency}`;
  if (!every) return first > 0 ? `${money(first)} once` : 'nothing';
  const length = every.n === 1 ? every.unit : `${every.n} ${every.unit}s`;
  if (times === 1) return first > 0 ? `${money(first)} for ${length}` : `nothing for ${length}`;
  const more = first === amount ? '' : ` (the first ${money(first)})`;
  return `${money(amount)} every ${length}${more}${times === null ? ', until you end it' : `, ${times} times`}`;
}

/** Where the payer says yes or no; the wallet's own page, never the site's. */
export function approvePage(a: Agreement, isTest: boolean, nonce: string): string {
  const stages = a.stages.map((stage) => `<li>${escape(stageWords(stage, a.currency))}</li>`).join('');
  const purses = PURSES.map((purse) => `<option value="${purse}">${escape(TELLS[purse])}</option>`).join('');
  const ask =
    a.state === 'asked'
      ? `<form method="post">${isTest ? `<label for="purse">Purse (test: no real money)</label><select id="purse" name="purse">${purses}</select><br><br>` : ''}
         <button class="go" name="what" value="approve">Approve</button> <button name="what" value="refuse">Refuse</button></form>`
      : `<p><b>This is ${a.state}.</b> <a href="${escape(a.returnUrl)}">Back to the site</a></p>${a.state === 'running' ? '<form method="post"><button name="what" value="end">End it</button></form>' : ''}`;
  return frame(
    'Dunlin Wallet',
    `<main class="card"><p class="soft">Dunlin Wallet</p><h1>${escape(a.note)}</h1><p>Paid from your wallet, without another question:</p><ul>${stages}</ul>${ask}</main>`,
    nonce,
  );
}

export function consentPage(query: URLSearchParams, nonce: string): string {
  const hidden = ['back', 'state', 'mode', 'name']
    .map((name) => `<input type="hidden" name="${name}" value="${escape(query.get(name) ?? '')}">`)
    .join('');
  return frame(
    'Dunlin Wallet',
    `<main class="card"><p class="soft">Dunlin Wallet, ${escape(query.get('mode') ?? '')} mode</p><h1>${escape(query.get('name') || 'Your site')}</h1><p>Nest Key asks to bill members for you, to refund them, and to be told what happens. You can withdraw this here at any time.</p>
     <form method="post">${hidden}<button class="go" name="what" value="allow">Allow</button> <button name="what" value="refuse">Refuse</button></form></main>`,
    nonce,
  );
}

/** The stand-in's own page: agreements, bills, addresses, and its faults. */
export function homePage(data: Data, faults: Faults, nonce: string): string {
  const agreements = data.agreements
    .slice(-60)
    .reverse()
    .map(
      (a) =>
        `<tr data-agreement="${escape(a.note)}"><td>${escape(a.note)}</td><td>${a.state}</td><td>${a.nextAt?.slice(0, 16).replace('T', ' ') ?? ''}</td><td>${a.purse}</td><td>
         ${a.state === 'running' ? `<form method="post" action="/agreements/${a.id}/end"><button>End (payer)</button></form>` : ''}${a.state === 'ended' ? `<form method="post" action="/agreements/${a.id}/bill"><button>Bill all the same</button></form>` : ''}</td></tr>`,
    );
  return frame(
    'Dunlin Wallet',
    `<h1>Dunlin Wallet</h1><p class="soft">A simulated wallet that bills by itself. No purse or money here is real.</p>
<h2>Agreements</h2>${agreements.length > 0 ? `<table><tr><th>For</th><th>State</th><th>Next bill</th><th>Purse</th><th></th></tr>${agreements.join('')}</table>` : '<p class="soft">None yet.</p>'}
<h2>Addresses for messages</h2>${hookTable(data.hooks, data.accounts)}
<h2>Faults</h2>${faults.form()}
<h2>Bills</h2>${paymentTable(data.payments)}`,
    nonce,
  );
}
