import { Mark, Node } from '@tiptap/core';
import { findWrapping } from '@tiptap/pm/transform';
import { gateSchema, type Gate } from '@/core/content/prose';
import { desk } from '@/words/desk';

/** What a section can be opened by: rules and tiers, by their names. */
export type Gates = { rules: { id: string; name: string }[]; tiers: { id: string; name: string }[] };

const OPEN_GATE: Gate = { rule: null, openTo: [], instead: '' };

/** A gate as it was copied with its text; one that cannot be read opens to nobody. */
function readGate(text: string | null): Gate {
  try {
    return gateSchema.parse(JSON.parse(text ?? ''));
  } catch {
    return OPEN_GATE;
  }
}

/** Who opens a section, in the words of the editor: "Only Observer and Star Warden". */
export function gateWords({ rule, openTo }: Gate, { rules, tiers }: Gates): string {
  if (rule !== null) {
    const name = rules.find(({ id }) => id === rule)?.name;
    return name === undefined ? desk('desk-content.rule-gone') : desk('desk-content.as-rule', { name });
  }
  const names = openTo.map(({ who }) =>
    who.kind === 'tier'
      ? (tiers.find(({ id }) => id === who.id)?.name ?? who.id)
      : who.kind === 'paying'
        ? desk('desk-content.everyone-who-pays')
        : who.kind === 'signed-in'
          ? desk('desk-content.everyone-signed-in')
          : who.kind,
  );
  return names.length === 0
    ? desk('desk-content.only-staff')
    : desk('desk-content.only', { names: new Intl.ListFormat('en-GB').format(names) });
}

/** Who opens a section, and what the others read. */
const labelOf = (gate: Gate, gates: Gates): string =>
  [
    gateWords(gate, gates),
    ...(gate.instead ? [desk('desk-content.others-read', { words: gate.instead })] : []),
  ].join(' · ');

const gateAttributes = () => ({
  rule: {
    default: null,
    parseHTML: (element: HTMLElement) => readGate(element.getAttribute('data-gate')).rule,
  },
  openTo: {
    default: [],
    parseHTML: (element: HTMLElement) => readGate(element.getAttribute('data-gate')).openTo,
  },
  instead: {
    default: '',
    parseHTML: (element: HTMLElement) => readGate(element.getAttribute('data-gate')).instead,
  },
});
const gateData = (attrs: Record<string, unknown>): string =>
  JSON.stringify({ rule: attrs.rule, openTo: attrs.openTo, instead: attrs.instead });

declare module '@tiptap/core' {
  interface Commands<ReturnType> {
    section: {
      /** Closes what is selected: a run of words within a line, or all the blocks that it reaches into. */
      closeSection: (gate: Gate) => ReturnType;
      /** Makes the innermost section around the cursor an ordinary part of the text again. */
      openSection: () => ReturnType;
    };
  }
}

/** Blocks that can hold a section; a list cannot between its items, so that one is closed as a whole. */
const HOLDERS = new Set(['doc', 'section', 'blockquote', 'listItem', 'tableCell', 'tableHeader']);
const DOCUMENT = new Set(['doc']);

export const sectionNode = (gates: Gates) =>
  Node.create({
    name: 'section',
    group: 'block',
    content: 'block+',
    defining: true,
    addAttributes: gateAttributes,
    parseHTML: () => [{ tag: 'section[data-gate]', contentElement: '[data-inside]' }],
    renderHTML: ({ node }) => [
      'section',
      {
        'data-gate': gateData(node.attrs),
        class: 'my-4 rounded-lg border border-later/50 bg-later-wash/60 px-4 pb-2',
      },
      [
        'p',
        { contenteditable: 'false', class: 'my-1.5! text-sm font-semibold text-later select-none' },
        labelOf(node.attrs as Gate, gates),
      ],
      ['div', { 'data-inside': '' }, 0],
    ],
    addCommands() {
      return {
        closeSection:
          (gate) =>
          ({ state, tr, commands }) => {
            const { $from, $to, empty, from, to } = state.selection;
            const [section, sectionWords] = [state.schema.nodes.section, state.schema.marks.sectionWords];
            if (!section || !sectionWords) return false;
            if (isInWords(state))
              return commands.extendMarkRange('sectionWords') && commands.setMark('sectionWords', gate);
            if (empty && sectionDepth($from) > 0) return commands.updateAttributes('section', gate);
            const isOneLine = $from.sameParent($to);
            // A picture or a file that is selected is a block, and no part of a line.
            const isPart = $from.parent.isTextblock && !empty && isOneLine && !isWholeLine($from, $to);
            if (isPart) {
              tr.addMark(from, to, sectionWords.create(gate));
              return true;
            }
            for (const holds of isOneLine ? [HOLDERS] : [HOLDERS, DOCUMENT]) {
              const range = $from.blockRange($to, (node) => holds.has(node.type.name));
              const wrapping = range && findWrapping(range, section, gate);
              if (range && wrapping) {
                tr.wrap(range, wrapping);
                return true;
              }
            }
            // A line that cannot be put into a block, as in a list: its words are closed, and no other line's.
            if (!isOneLine || !$from.parent.isTextblock || $from.parent.content.size === 0) return false;
            tr.addMark($from.start(), $from.end(), sectionWords.create(gate));
            return true;
          },
        openSection:
          () =>
          ({ state, tr, commands }) => {
            if (isInWords(state))
              return commands.extendMarkRange('sectionWords') && commands.unsetMark('sectionWords');
            const { $from } = state.selection;
            const depth = sectionDepth($from);
            if (depth === 0) return false;
            tr.replaceWith($from.before(depth), $from.after(depth), $from.node(depth).content);
            return true;
          },
      };
    },
  });

type Position = { depth: number; node: (depth: number) => { type: { name: string } } };
/** How deep the innermost section around a position is; 0 where there is none. */
function sectionDepth(at: Position): number {
  for (let depth = at.depth; depth > 0; depth--) if (at.node(depth).type.name === 'section') return depth;
  return 0;
}

type Edge = { parentOffset: number; parent: { content: { size: number } } };
const isWholeLine = (from: Edge, to: Edge): boolean =>
  from.parentOffset === 0 && to.parentOffset === to.parent.content.size;

type Inside = { selection: { $from: { marks: () => readonly { type: { name: string } }[] } } };
const isInWords = ({ selection }: Inside): boolean =>
  selection.$from.marks().some(({ type }) => type.name === 'sectionWords');

export const sectionMark = (gates: Gates) =>
  Mark.create({
    name: 'sectionWords',
    inclusive: false,
    addAttributes: gateAttributes,
    parseHTML: () => [{ tag: 'span[data-gate]' }],
    renderHTML: ({ mark }) => [
      'span',
      {
        'data-gate': gateData(mark.attrs),
        title: labelOf(mark.attrs as Gate, gates),
        class: 'rounded bg-later-wash px-0.5 outline outline-later/50',
      },
      0,
    ],
  });
