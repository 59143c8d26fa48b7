import { SiteLink } from '@/kit/site-link';
import { renderJSONContentToReactElement } from '@tiptap/static-renderer/json/react';
import type { ReactNode } from 'react';
import type { Prose } from '@/core/content/prose';
import { CLOSED } from '@/core/content/sections';
import { JoinButton } from './join-button';
import { isSafeHref } from '@/core/addresses';

type Props = { node: { attrs?: Record<string, unknown>; text?: string }; children?: ReactNode };
const wrap = (Tag: 'p' | 'ul' | 'ol' | 'li' | 'blockquote' | 'strong' | 'em' | 'code' | 's' | 'u' | 'tr') =>
  function Wrapped({ children }: { children?: ReactNode }) {
    return <Tag>{children}</Tag>;
  };

function Heading({ node, children }: Props) {
  const level = Number(node.attrs?.level ?? 2);
  const Tag = level === 2 ? 'h2' : level === 3 ? 'h3' : 'h4';
  return <Tag>{children}</Tag>;
}

type LinkMark = { attrs?: { href?: string; item?: string | null } };

const textLink = (links: Record<string, string>) =>
  function TextLink({ mark, children }: { mark: LinkMark; children?: ReactNode }) {
    // An item is where it is by now; the address it had leads on to it, if it is known no more.
    const href = links[mark.attrs?.item ?? ''] ?? mark.attrs?.href ?? '';
    // Links saved before addresses were checked may be unsafe: only their words are shown.
    if (!isSafeHref(href)) return <>{children}</>;
    return href.startsWith('/') || href.startsWith('#') ? (
      <SiteLink href={href}>{children}</SiteLink>
    ) : (
      <a href={href} rel="noopener noreferrer nofollow">
        {children}
      </a>
    );
  };

type Options = {
  /** The address of the item, to which people who join from it return. */
  here: string;
  /** What a field for the reader’s name is called. */
  nameLabel: string;
  /** What is shown for a join panel with these tiers. */
  panel: (tiers: string[]) => ReactNode;
  /** What is shown where a section is closed, with its author's words for that. */
  closed: (words: ReactNode) => ReactNode;
  /** What is shown of the product itself: signing in, the members' room, and others. */
  product: (panel: string) => ReactNode;
  /** Where the items are by now to which links lead, by id. */
  links: Record<string, string>;
  /** What is shown of a picture, a file, and something of another site. */
  image: (attrs: { picture: string; alt: string; caption: string }) => ReactNode;
  file: (itemId: string) => ReactNode;
  embed: (attrs: { url: string; title: string }) => ReactNode;
};

/** By what a panel is asked for that sells something once, beside those of tiers. */
export const productKey = (id: string): string => `product ${id}`;

const words = (value: unknown): string => (typeof value === 'string' ? value : '');

const cell = (Tag: 'td' | 'th') =>
  function Cell({ node, children }: Props) {
    const { colspan, rowspan } = node.attrs ?? {};
    return (
      <Tag colSpan={Number(colspan ?? 1)} rowSpan={Number(rowspan ?? 1)}>
        {children}
      </Tag>
    );
  };

const rendererFor = ({ here, nameLabel, panel, product, closed, links, image, file, embed }: Options) =>
  renderJSONContentToReactElement({
    nodeMapping: {
      doc: ({ children }: Props) => <>{children}</>,
      text: ({ node }: Props) => node.text ?? '',
      paragraph: wrap('p'),
      heading: Heading,
      bulletList: wrap('ul'),
      orderedList: wrap('ol'),
      listItem: wrap('li'),
      blockquote: wrap('blockquote'),
      horizontalRule: () => <hr />,
      hardBreak: () => <br />,
      codeBlock: ({ children }: Props) => (
        <pre>
          <code>{children}</code>
        </pre>
      ),
      joinButton: ({ node }: Props) => (
        <div>
          <JoinButton
            offerId={words(node.attrs?.offer)}
            label={words(node.attrs?.label)}
            isIcon={node.attrs?.icon === true}
            nameLabel={node.attrs?.asksName === true ? nameLabel : null}
            here={here}
          />
        </div>
      ),
      [CLOSED]: ({ children }: Props) => <>{closed(children)}</>,
      image: ({ node: { attrs = {} } }: Props) => (
        <>{image({ picture: words(attrs.picture), alt: words(attrs.alt), caption: words(attrs.caption) })}</>
      ),
      file: ({ node: { attrs = {} } }: Props) => <>{file(words(attrs.item))}</>,
      embed: ({ node: { attrs = {} } }: Props) => (
        <>{embed({ url: words(attrs.url), title: words(attrs.title) })}</>
      ),
      panel: ({ node }: Props) => <>{product(words(node.attrs?.panel))}</>,
      table: ({ children }: Props) => (
        <div className="relative overflow-x-auto">
          <table>
            <tbody>{children}</tbody>
          </table>
        </div>
      ),
      tableRow: wrap('tr'),
      tableHeader: cell('th'),
      tableCell: cell('td'),
      teaserEnd: () => null,
      // One that nobody decided about is not shown.
      section: () => null,
      buyPanel: ({ node }: Props) => <>{panel([productKey(words(node.attrs?.product))])}</>,
      joinPanel: ({ node }: Props) => <>{panel((node.attrs?.tiers ?? []) as string[])}</>,
    },
    markMapping: {
      bold: wrap('strong'),
      italic: wrap('em'),
      code: wrap('code'),
      strike: wrap('s'),
      underline: wrap('u'),
      link: textLink(links),
      sectionWords: () => null,
    },
  });

/** A document as it is read. */
export function RichText({
  document,
  className = 'prose',
  here = '/account',
  nameLabel = '',
  panel = () => null,
  product = () => null,
  closed = () => null,
  links = {},
  image = () => null,
  file = () => null,
  embed = () => null,
}: { document: Prose; className?: string } & Partial<Options>) {
  return (
    <div className={className}>
      {rendererFor({ here, nameLabel, panel, product, closed, links, image, file, embed })({
        content: document,
      })}
    </div>
  );
}
