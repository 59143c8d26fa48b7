import { describe, expect, it } from 'vitest';
import { feedEntries, type FeedEntry } from './feed-entries';
import { htmlMarkdown } from './html-markdown';
import { readMarkdown } from './markdown';

/** In pieces of a few bytes, as they may come: a piece can end within a tag or a character. */
async function* inPieces(bytes: Buffer, size = 7): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += size) yield await Promise.resolve(bytes.subarray(at, at + size));
}
async function read(xml: string | Buffer, size?: number): Promise<FeedEntry[]> {
  const found: FeedEntry[] = [];
  for await (const entry of feedEntries(inPieces(Buffer.from(xml), size))) found.push(entry);
  return found;
}

const RSS = `<?xml version="1.0" encoding="UTF-8"?>
<rss version="2.0" xmlns:content="http://purl.org/rss/1.0/modules/content/" xmlns:dc="http://purl.org/dc/elements/1.1/"><channel>
<title>The hill diary</title><link>https://hill.example/</link><description>Of the hill</description>
<item><title>Frost &amp; stars</title><link>https://hill.example/2026/03/frost/</link><pubDate>Wed, 04 Mar 2026 21:30:00 +0100</pubDate>
<dc:creator>Wilf Arkwright</dc:creator><category>notes</category><category><![CDATA[cold nights]]></category>
<description>Short.</description><content:encoded><![CDATA[<p>The <b>long</b> text – with a dash.</p>]]></content:encoded></item>
<item><title>Only described</title><description>&lt;p&gt;All there is.&lt;/p&gt;</description></item>
</channel></rss>`;

const ATOM = `<feed xmlns="http://www.w3.org/2005/Atom"><title>Diary</title><author><name>The site</name></author>
<entry><title type="html">Moonrise</title><link rel="self" href="https://hill.example/feed/1"/><link href="https://hill.example/moonrise"/>
<published>2026-04-05T19:00:00Z</published><updated>2026-04-06T19:00:00Z</updated><author><name>Greta Lund</name></author>
<category term="moon"/><summary>In short</summary>
<content type="xhtml"><div xmlns="http://www.w3.org/1999/xhtml"><p>It rose <a href="/x?a=1&amp;b=2">late</a> &lt; never.</p></div></content></entry></feed>`;

describe('an export as a feed', () => {
  it('is read as RSS, however its bytes come', async () => {
    for (const size of [1, 7, 10_000])
      expect(await read(RSS, size)).toEqual([
        {
          title: 'Frost & stars',
          link: 'https://hill.example/2026/03/frost/',
          published: 'Wed, 04 Mar 2026 21:30:00 +0100',
          author: 'Wilf Arkwright',
          tags: ['notes', 'cold nights'],
          summary: 'Short.',
          content: '<p>The <b>long</b> text – with a dash.</p>',
        },
        expect.objectContaining({ title: 'Only described', summary: '<p>All there is.</p>', content: '' }),
      ]);
  });

  it('is read as Atom, with markup of its own', async () => {
    const [entry] = await read(ATOM);
    expect(entry).toMatchObject({
      title: 'Moonrise',
      link: 'https://hill.example/moonrise',
      published: '2026-04-05T19:00:00Z',
      author: 'Greta Lund',
      tags: ['moon'],
      summary: 'In short',
    });
    expect(htmlMarkdown(entry?.content ?? '')).toBe('It rose [late](/x?a=1&b=2) < never.');
  });

  it('in another encoding is read by what it says it is in', async () => {
    const latin = Buffer.from(
      '<?xml version="1.0" encoding="ISO-8859-1"?><rss><channel><item><title>Über</title></item></channel></rss>',
      'latin1',
    );
    expect((await read(latin, 1000)).map(({ title }) => title)).toEqual(['Über']);
  });

  it('that is none, is broken off, or names entities of its own is read as far as it can be', async () => {
    expect(await read('PK\u0003\u0004 no feed')).toEqual([]);
    expect(await read(RSS.slice(0, RSS.indexOf('<item><title>Only')))).toHaveLength(1);
    const bomb = `<!DOCTYPE rss [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;">]><rss><channel><item><title>x &b; y</title></item></channel></rss>`;
    expect((await read(bomb))[0]?.title).not.toContain('aaa');
  });
});

describe('the HTML of another site', () => {
  it('becomes words, headings, lists and links, and nothing that runs', () => {
    const html = `<h2>Kit</h2><ul><li>A <em>flask</em></li><li>A chair</li></ul><script>alert(1)</script><style>p{}</style>
      <p onclick="x()">See <a href="javascript:alert(1)">this</a>.</p>`;
    const text = htmlMarkdown(html);
    expect(text).toContain('## Kit');
    expect(text).toMatch(/-\s+A _flask_/);
    expect(text).not.toMatch(/alert\(1\)<|onclick|p\{\}/);
  });

  it('leaves a link where a picture or a film of another site was', () => {
    expect(htmlMarkdown('<p><img src="https://hill.example/a.jpg" alt="The hill"></p>')).toBe(
      '[The hill](<https://hill.example/a.jpg>)',
    );
    expect(htmlMarkdown('<iframe src="https://films.example/1" title="A film"></iframe>')).toBe(
      '[A film](<https://films.example/1>)',
    );
    expect(htmlMarkdown('<img src="data:image/png;base64,xx">')).toBe('');
  });

  it('opens no section of ours', () => {
    for (const words of [':::section{tiers="observer"}', ':section[words]{paying}', '::file{item="a"}'])
      expect(
        readMarkdown(htmlMarkdown(`<p>${words}</p>`), { picture: () => null, itemAt: () => null }),
      ).toEqual({
        type: 'doc',
        content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }],
      });
  });
});
