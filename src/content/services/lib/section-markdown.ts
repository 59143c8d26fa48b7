import { createBlockMarkdownSpec, Mark, Node, type MarkdownToken } from '@tiptap/core';
import type { Gate } from '@/core/content/prose';

/**
 * The gate of a directive. `tiers`: ids; `paying` and `signed-in` open to those; `rule`: the id of a rule whose openers
 * count; `instead`: what others read.
 */
function gateOf(attributes: string): Gate {
  const named = new Map(
    [...attributes.matchAll(/([a-z-]+)(?:="([^"]*)")?/g)].map(([, name = '', value = '']) => [name, value]),
  );
  const tiers = (named.get('tiers') ?? '').split(',').map((id) => id.trim());
  return {
    rule: named.get('rule') ?? null,
    openTo: [
      ...tiers.filter(Boolean).map((id) => ({ who: { kind: 'tier' as const, id } })),
      ...(named.has('paying') ? [{ who: { kind: 'paying' as const } }] : []),
      ...(named.has('signed-in') ? [{ who: { kind: 'signed-in' as const } }] : []),
    ],
    instead: named.get('instead') ?? '',
  };
}

const attributes = () => ({ rule: {}, openTo: {}, instead: {} });

const SectionBlock = Node.create({
  name: 'section',
  group: 'block',
  content: 'block+',
  addAttributes: attributes,
  ...createBlockMarkdownSpec({ nodeName: 'section', parseAttributes: gateOf }),
});

const WORDS = /^:section\[([^\]]+)\]\{([^}]*)\}/;

const SectionWords = Mark.create({
  name: 'sectionWords',
  addAttributes: attributes,
  markdownTokenName: 'sectionWords',
  markdownTokenizer: {
    name: 'sectionWords',
    level: 'inline',
    start: (source: string) => source.indexOf(':section['),
    tokenize: (source, _tokens, lexer) => {
      const [raw, words = '', given = ''] = WORDS.exec(source) ?? [];
      if (raw === undefined) return undefined;
      return { type: 'sectionWords', raw, given, tokens: lexer.inlineTokens(words) };
    },
  },
  parseMarkdown: (token: MarkdownToken, helpers) =>
    helpers.applyMark('sectionWords', helpers.parseInline(token.tokens ?? []), gateOf(String(token.given))),
});

/**
 * Sections in Markdown, as directives: `:::section {tiers="observer,warden"}` … `:::` around blocks, and
 * `:section[some words]{rule="guides"}` within a line.
 */
export const SECTIONS = [SectionBlock, SectionWords];

/** Whether text still holds a directive: one that was mistyped, whose words would be open to everyone. */
export const holdsDirective = (text: string): boolean => /:::|:section\b/.test(text);
