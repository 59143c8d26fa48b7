import type { ServerResponse } from 'node:http';
import { failureWords } from '@/words/failure';
import { noteHead } from './headers';

/** The page needs nothing but itself: no script, no file, no database. */
export const FAILURE_HEADERS = {
  'content-type': 'text/html; charset=utf-8',
  'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'none'",
};

/** What is shown where even the pages fail: by itself, without script, database or anything else. */
export function failurePage(id: string, acceptLanguage = ''): string {
  const t = failureWords(acceptLanguage);
  return `<!doctype html><html lang="${t.language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${t('failure.title')}</title>
<style>:root{color-scheme:light dark;--ground:#F6F3EC;--ink:#1D2B2F;--muted:#5C6866;--link:#1F5A4C}
@media(prefers-color-scheme:dark){:root{--ground:#12191C;--ink:#E7E3D8;--muted:#9DA8A6;--link:#8CC7B4}}
body{margin:0;background:var(--ground);color:var(--ink);font:18px/1.6 system-ui,sans-serif}main{max-width:36rem;margin:0 auto;padding:4rem 1.25rem}
h1{font-size:2rem;line-height:1.2}a{color:var(--link)}.id{color:var(--muted)}</style></head>
<body><main><h1>${t('failure.title')}</h1>
<p>${t('failure.words')}</p>
<p>${t('failure.back')} <a href="/account">${t('failure.account')}</a></p>
<p class="id">${t('failure.number', { number: id })}</p>
</main></body></html>`;
}

type Written = (...all: unknown[]) => boolean;

/**
 * Puts the failure page in place of whatever page is answered with 500: those that the pages make themselves are blank
 * without script. Files, data and forms that are sent by script keep their own answer.
 */
export function replaceFailedPages(response: ServerResponse, id: string, acceptLanguage = ''): void {
  /* oxlint-disable typescript/unbound-method -- called on the response below */
  const write = response.write as Written;
  const end = response.end as unknown as (...all: unknown[]) => ServerResponse;
  const writeHead = response.writeHead as (...all: unknown[]) => ServerResponse;
  /* eslint-enable typescript/unbound-method */
  let isReplaced = false;
  const replace = (): void => {
    if (response.headersSent || isReplaced || response.statusCode !== 500) return;
    if (!String(response.getHeader('content-type') ?? '').startsWith('text/html')) return;
    isReplaced = true;
    for (const name of ['content-encoding', 'content-length', 'transfer-encoding', 'link', 'etag'])
      response.removeHeader(name);
    for (const [name, value] of Object.entries(FAILURE_HEADERS)) response.setHeader(name, value);
  };
  // The compressing layer sends headers first.
  response.writeHead = (...all: unknown[]) => {
    noteHead(response, all);
    replace();
    return writeHead.call(response, response.statusCode);
  };
  response.write = ((...all: unknown[]) => {
    replace();
    return isReplaced || write.apply(response, all);
  }) as typeof response.write;
  response.end = ((...all: unknown[]) => {
    replace();
    return isReplaced ? end.call(response, failurePage(id, acceptLanguage)) : end.apply(response, all);
  }) as typeof response.end;
}
