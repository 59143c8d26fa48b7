import {
  escapeHTML,
  escapeHTMLAttribute,
  renderJSONContentToString,
} from '@tiptap/static-renderer/json/html-string';
import { isSafeHref } from '../addresses';
import { CLOSED } from './sections';
import type { Prose } from './prose';

type ShownFile = { title: string; name: string; path: string; isOpen: boolean };
type Shown = { files: Record<string, ShownFile>; links: Record<string, string> };
/** `base`: the site's own address; `fileHref`: where a file is fetched that is open to the reader. */
type Where = { base: string; fileHref: (id: string, file: ShownFile) => string; shown: Shown };
type Given = { node: { attrs?: Record<string, unknown>; text?: string }; children?: string | string[] };

const inside = ({ children }: Given): string =>
  Array.isArray(children) ? children.join('') : (children ?? '');
const wrap =
  (tag: string) =>
  (given: Given): string =>
    `<${tag}>${inside(given)}</${tag}>`;
const said = (value: unknown): string => (typeof value === 'string' ? value : '');

/** A text as it is read outside the site, in feeds and mails: plain HTML, its addresses whole, without pictures that need a session. */
export function plainHtml(document: Prose, { base, fileHref, shown }: Where): string {
  const whole = (href: string): string => (href.startsWith('/') ? `${base}${href}` : href);
  const render = renderJSONContentToString({
    nodeMapping: {
      doc: inside,
      text: ({ node }: Given) => escapeHTML(node.text ?? ''),
      paragraph: wrap('p'),
      heading: (given: Given) => wrap(`h${Number(given.node.attrs?.level ?? 2)}`)(given),
      bulletList: wrap('ul'),
      orderedList: wrap('ol'),
      listItem: wrap('li'),
      blockquote: wrap('blockquote'),
      codeBlock: (given: Given) => `<pre><code>${inside(given)}</code></pre>`,
      horizontalRule: () => '<hr>',
      hardBreak: () => '<br>',
      table: (given: Given) => `<table>${inside(given)}</table>`,
      tableRow: wrap('tr'),
      tableHeader: wrap('th'),
      tableCell: wrap('td'),
      image: ({ node }: Given) =>
        wrap('p')({ node, children: escapeHTML(said(node.attrs?.caption) || said(node.attrs?.alt)) }),
      file: ({ node }: Given) => {
        const id = said(node.attrs?.item);
        const file = shown.files[id];
        if (!file) return '';
        const words = escapeHTML(file.title);
        return `<p>${file.isOpen ? `<a href="${escapeHTMLAttribute(fileHref(id, file))}">${words}</a>` : words}</p>`;
      },
      embed: ({ node }: Given) => {
        const url = said(node.attrs?.url);
        return isSafeHref(url)
          ? `<p><a href="${escapeHTMLAttribute(url)}">${escapeHTML(said(node.attrs?.title) || url)}</a></p>`
          : '';
      },
      [CLOSED]: wrap('p'),
      section: () => '',
      joinButton: () => '',
      joinPanel: () => '',
      buyPanel: () => '',
      panel: () => '',
      teaserEnd: () => '',
    },
    markMapping: {
      bold: wrap('strong'),
      italic: wrap('em'),
      code: wrap('code'),
      strike: wrap('s'),
      underline: wrap('u'),
      link: (given: { mark: { attrs?: Record<string, unknown> }; children?: string | string[] }) => {
        const href = shown.links[said(given.mark.attrs?.item)] ?? said(given.mark.attrs?.href);
        const words = inside(given as unknown as Given);
        return isSafeHref(href) ? `<a href="${escapeHTMLAttribute(whole(href))}">${words}</a>` : words;
      },
      sectionWords: () => '',
    },
  });
  return render({ content: document });
}
