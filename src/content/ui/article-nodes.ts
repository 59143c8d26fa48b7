import { Node } from '@tiptap/core';
import { Link } from '@tiptap/extension-link';
import { TableKit } from '@tiptap/extension-table';
import { PANELS } from '@/core/content/page-roles';
import { desk } from '@/words/desk';

/** What items are called to which a text leads, by id. */
export type ItemNames = Record<string, string>;

const attribute = (name: string, fallback = '') => ({
  default: fallback,
  parseHTML: (element: HTMLElement) => element.getAttribute(`data-${name}`) ?? fallback,
  renderHTML: (attrs: Record<string, unknown>) => ({ [`data-${name}`]: attrs[name] as string }),
});

const CARD = 'rounded-lg border border-line bg-sunken px-4 py-2 text-base font-semibold';

/** A picture of ours; one that is pasted from elsewhere is not among them. */
const ImageBlock = Node.create({
  name: 'image',
  group: 'block',
  atom: true,
  addAttributes: () => ({
    picture: attribute('picture'),
    alt: attribute('alt'),
    caption: attribute('caption'),
  }),
  parseHTML: () => [{ tag: 'figure[data-picture]' }],
  renderHTML: ({ node, HTMLAttributes }) => [
    'figure',
    HTMLAttributes,
    [
      'img',
      {
        src: `/pictures/${String(node.attrs.picture)}?size=small`,
        alt: String(node.attrs.alt),
        class: 'w-full rounded-lg',
      },
    ],
    [
      'figcaption',
      { class: 'mt-1 text-base text-muted' },
      [node.attrs.caption, node.attrs.alt ? '' : desk('desk-content.no-alt')].filter(Boolean).join(' · '),
    ],
  ],
});

const fileBlock = (names: ItemNames) =>
  Node.create({
    name: 'file',
    group: 'block',
    atom: true,
    addAttributes: () => ({ item: attribute('item') }),
    parseHTML: () => [{ tag: 'div[data-file]' }],
    renderHTML: ({ node, HTMLAttributes }) => [
      'div',
      { ...HTMLAttributes, 'data-file': '', class: CARD },
      desk('desk-content.file-named', {
        title: names[String(node.attrs.item)] ?? desk('desk-content.file-gone'),
      }),
    ],
  });

const EmbedBlock = Node.create({
  name: 'embed',
  group: 'block',
  atom: true,
  addAttributes: () => ({ url: attribute('url'), title: attribute('title') }),
  parseHTML: () => [{ tag: 'div[data-embed]' }],
  renderHTML: ({ node, HTMLAttributes }) => [
    'div',
    { ...HTMLAttributes, 'data-embed': '', class: CARD },
    desk('desk-content.embed-named', { url: String(node.attrs.title || node.attrs.url) }),
  ],
});

/** A panel of the product, such as the sign-in form. */
const PanelBlock = Node.create({
  name: 'panel',
  group: 'block',
  atom: true,
  addAttributes: () => ({ panel: attribute('panel', 'search') }),
  parseHTML: () => [{ tag: 'div[data-panel]' }],
  renderHTML: ({ node, HTMLAttributes }) => {
    const panel = PANELS.find((one) => one === node.attrs.panel) ?? 'search';
    return ['div', { ...HTMLAttributes, class: CARD }, desk(`desk-content.panel-${panel}`)];
  },
});

/** The end of the teaser: the text up to here may be shown at the doorstep. */
const TeaserEnd = Node.create({
  name: 'teaserEnd',
  group: 'block',
  atom: true,
  parseHTML: () => [{ tag: 'div[data-teaser-end]' }],
  renderHTML: () => [
    'div',
    {
      'data-teaser-end': '',
      class: 'border-t-2 border-dashed border-brass pt-1 text-center text-sm font-semibold text-brass',
    },
    desk('desk-content.teaser-ends'),
  ],
});

/** A link that can name an item, so that it still leads there when the item moves. */
const ItemLink = Link.extend({
  addAttributes() {
    return {
      ...this.parent?.(),
      item: {
        default: null,
        parseHTML: (element: HTMLElement) => element.getAttribute('data-item'),
        renderHTML: (attrs: Record<string, unknown>) =>
          typeof attrs.item === 'string' ? { 'data-item': attrs.item } : {},
      },
    };
  },
}).configure({ openOnClick: false, autolink: true, defaultProtocol: 'https' });

/** What only the text of an item has. */
export const articleNodes = (names: ItemNames) => [
  ImageBlock,
  fileBlock(names),
  EmbedBlock,
  PanelBlock,
  TeaserEnd,
  TableKit.configure({ table: { resizable: false } }),
];
export { ItemLink };
