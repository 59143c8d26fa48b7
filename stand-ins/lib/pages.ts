export const escape = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

const STYLE = `
  :root { color-scheme: light dark; font: 15px/1.45 system-ui, sans-serif; --line: light-dark(#d8d8dd, #45454d); --soft: light-dark(#5d5d68, #a8a8b3); --bad: light-dark(#a32020, #ff9c9c); }
  * { box-sizing: border-box; } body { margin: 0; background: transparent; color: light-dark(#22222a, #ececf1); }
  label { display: block; font-weight: 600; margin-bottom: .2rem; } small, .soft { color: var(--soft); }
  input, select { width: 100%; font: inherit; padding: .5rem .6rem; border: 1px solid var(--line); border-radius: .4rem; background: light-dark(#fff, #1b1b20); color: inherit; }
  input[aria-invalid=true] { border-color: var(--bad); } .problem { color: var(--bad); min-height: 1.3em; margin: .15rem 0 0; font-size: .9rem; }
  button { font: inherit; cursor: pointer; } table { border-collapse: collapse; width: 100%; } th, td { text-align: left; padding: .35rem .6rem; border-bottom: 1px solid var(--line); vertical-align: top; }
  code { overflow-wrap: anywhere; } .row { display: flex; flex-wrap: wrap; gap: .8rem; align-items: end; } td form { display: inline; }`;

/** The frame of a stand-in's page that is read by people, not framed in another. */
export const READ_STYLE = `body { max-width: 64rem; margin: 2rem auto; padding: 0 1rem; background: light-dark(#f4f4f7, #16161a); } h1 { margin-bottom: 0; } form { margin: .4rem 0; }`;

export function page(title: string, body: string, nonce: string): string {
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${title}</title><style nonce="${nonce}">${STYLE}</style><body>${body}</body></html>`;
}

/** A button that does one thing to one payment. */
export const paymentButton = (id: string, what: string, words: string): string =>
  `<form method="post" action="/payments/${id}/${what}"><button>${words}</button></form>`;
