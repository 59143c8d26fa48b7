import sax, { type Tag } from 'sax';

/** What a feed says of one text. `link` and `published` are as they are written there; `content` is HTML. */
export type FeedEntry = {
  title: string;
  link: string;
  published: string;
  author: string;
  tags: string[];
  summary: string;
  content: string;
};

const NEW: FeedEntry = {
  title: '',
  link: '',
  published: '',
  author: '',
  tags: [],
  summary: '',
  content: '',
};

/** More than this of one text is left out, in characters. */
const MOST_TEXT = 2_000_000;

/** The part of an entry that an element of RSS 2.0 or Atom (RFC 4287) holds. The first that is there counts. */
const FIELDS: Partial<Record<string, Exclude<keyof FeedEntry, 'tags'>>> = {
  title: 'title',
  link: 'link',
  pubDate: 'published',
  'dc:date': 'published',
  published: 'published',
  'dc:creator': 'author',
  'author/name': 'author',
  author: 'author',
  description: 'summary',
  summary: 'summary',
  'content:encoded': 'content',
  content: 'content',
};

/**
 * The texts of an export as RSS or Atom, one after the other as its bytes come; nothing where it is no such thing. Nothing
 * that it names is fetched, and entities of its own are not resolved.
 */
export async function* feedEntries(bytes: AsyncIterable<Uint8Array>): AsyncGenerator<FeedEntry> {
  const found: FeedEntry[] = [];
  const parser = reader((entry) => found.push(entry));
  let decoder: TextDecoder | undefined;
  for await (const piece of bytes) {
    decoder ??= decoderOf(piece);
    parser.write(decoder.decode(piece, { stream: true }));
    yield* found.splice(0);
  }
}

/** By the encoding that the file says it has; UTF-8 where it says none that is known. */
function decoderOf(first: Uint8Array): TextDecoder {
  const said = /^\W*<\?xml[^>]*encoding=["']([\w-]+)["']/.exec(
    Buffer.from(first.subarray(0, 200)).toString('latin1'),
  );
  try {
    return new TextDecoder(said?.[1] ?? 'utf-8');
  } catch {
    return new TextDecoder();
  }
}

const escape = (text: string): string =>
  text.replace(/[&<>]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;' })[c] ?? c);

function reader(onEntry: (entry: FeedEntry) => void) {
  const parser = sax.parser(true, { trim: false });
  let entry: FeedEntry | null = null;
  /** The elements that are open within the entry. */
  let inside: string[] = [];
  let text = '';
  /** Within the content of an Atom entry that is markup of its own: at which depth that began. */
  let markupFrom: number | null = null;

  parser.onopentag = (tag: Tag) => {
    const { name } = tag;
    const attributes = tag.attributes as Record<string, string>;
    if (!entry) {
      if (name === 'item' || name === 'entry') [entry, inside] = [{ ...NEW, tags: [] }, []];
      return;
    }
    if (markupFrom !== null) {
      const written = Object.entries(attributes).map(
        ([key, value]) => ` ${key}="${escape(value).replaceAll('"', '&quot;')}"`,
      );
      text += `<${name}${written.join('')}>`;
    } else text = '';
    inside.push(name);
    if (name === 'link' && attributes.href && (attributes.rel ?? 'alternate') === 'alternate')
      entry.link ||= attributes.href;
    if (name === 'category' && attributes.term) entry.tags.push(attributes.term);
    if (name === 'content' && attributes.type === 'xhtml') markupFrom = inside.length;
  };
  const add = (more: string): void => {
    if (text.length < MOST_TEXT) text += markupFrom === null ? more : escape(more);
  };
  parser.ontext = add;
  parser.oncdata = add;
  parser.onclosetag = (name: string) => {
    if (!entry) return;
    if (inside.length === 0) {
      if (entry.title || entry.content || entry.summary) onEntry(entry);
      entry = null;
      return;
    }
    if (markupFrom !== null && inside.length > markupFrom) text += `</${name}>`;
    else {
      const field = FIELDS[inside.join('/')];
      if (field) entry[field] ||= text.trim();
      if (inside.join('/') === 'category' && text.trim()) entry.tags.push(text.trim());
      markupFrom = null;
      text = '';
    }
    inside.pop();
  };
  // What is no proper XML is read as far as it can be.
  parser.onerror = () => {
    parser.error = null as unknown as Error;
    parser.resume();
  };
  return parser;
}
