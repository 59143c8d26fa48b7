/** Forms as a browser sends them without any script: by plain HTTP, so that what is behind them may change. */
import type { APIRequestContext, APIResponse } from '@playwright/test';

const unescaped = (text: string): string =>
  text
    .replaceAll('&quot;', '"')
    .replaceAll('&#x27;', "'")
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&amp;', '&');

/** The hidden fields of a page's form, found by its label, or by an address of its own. */
export function hiddenFields(html: string, label: string): Record<string, string> {
  const form = [...html.matchAll(/<form[^>]*>[\s\S]*?<\/form>/g)].find(([all]) =>
    new RegExp(`^<form[^>]*aria-label="${label}"`).test(all),
  )?.[0];
  if (!form) throw new Error(`no form “${label}”`);
  const fields: Record<string, string> = {};
  for (const [tag] of form.matchAll(/<input[^>]*>/g)) {
    const read = (name: string): string | undefined => new RegExp(`\\b${name}="([^"]*)"`).exec(tag)?.[1];
    if (read('type') === 'hidden' && read('name'))
      fields[unescaped(read('name') ?? '')] = unescaped(read('value') ?? '');
  }
  return fields;
}

/** Loads a page, fills in one of its forms and sends it. */
export async function sendForm(
  request: APIRequestContext,
  path: string,
  label: string,
  fields: Record<string, string>,
  headers: Record<string, string> = {},
): Promise<APIResponse> {
  const page = await request.get(path, { headers });
  const hidden = hiddenFields(await page.text(), label);
  return request.post(path, { multipart: { ...hidden, ...fields }, maxRedirects: 0, headers });
}
