import TurndownService from 'turndown';

const service = new TurndownService({
  headingStyle: 'atx',
  codeBlockStyle: 'fenced',
  bulletListMarker: '-',
  hr: '---',
});
service.remove(['script', 'style', 'noscript', 'form', 'button']);
// What lies on other sites is not fetched: a link is left where it was.
service.addRule('elsewhere', {
  filter: (node) => ['IMG', 'IFRAME', 'VIDEO', 'AUDIO'].includes(node.nodeName),
  replacement: (_, node) => {
    const element = node as unknown as { getAttribute: (name: string) => string | null };
    const source = element.getAttribute('src') ?? '';
    const words = (element.getAttribute('alt') ?? element.getAttribute('title') ?? '').trim() || source;
    return /^https?:/.test(source) ? `[${words.replace(/[[\]]/g, '')}](<${source}>)` : '';
  },
});

/** HTML of another site as Markdown: its words, headings, lists, links and quotes, and nothing that runs. */
export const htmlMarkdown = (html: string): string =>
  // What would be read as a section of ours was none there.
  service.turndown(html).replace(/:{2,}|:(?=section\b)/g, (run) => '\\:'.repeat(run.length));
