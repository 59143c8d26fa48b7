import { decide, type Question } from '../access/decide';
import type { Opener, Rule } from '../access/rule';
import type { Gate, Mark, Node, Prose } from './prose';

/** In place of a closed section: the words that its author gave, and nothing of the section. */
export const CLOSED = 'closedSection';

const gateOf = (mark: Mark | undefined): Gate | null => (mark?.type === 'sectionWords' ? mark.attrs : null);
const sectionMark = ({ marks = [] }: Node): Mark | undefined =>
  marks.find(({ type }) => type === 'sectionWords');

/**
 * A document with the sections that are open, as plain blocks and words, and without those that are closed. Nothing of
 * a section's gate is left in it but `instead`, so that what is returned can be sent to the person it was asked for.
 */
export function openParts(prose: Prose, isOpen: (gate: Gate) => boolean): Prose {
  const keep = (nodes: Node[]): Node[] => {
    const kept: Node[] = [];
    let lastClosed: Gate | null = null;
    for (const node of nodes) {
      const gate = node.type === 'section' ? asGate(node) : gateOf(sectionMark(node));
      if (!gate) {
        lastClosed = null;
        kept.push(...keptNode(node));
      } else if (!isOpen(gate)) {
        // A run of words is several nodes where part of it is bold or a link: its other words are said once.
        const isSameRun = node.type !== 'section' && lastClosed !== null && sameGate(gate, lastClosed);
        lastClosed = gate;
        if (!isSameRun) kept.push(...insteadOf(node, gate));
      } else {
        lastClosed = null;
        if (node.type === 'section') kept.push(...keep(node.content ?? []));
        else kept.push({ ...node, marks: (node.marks ?? []).filter(({ type }) => type !== 'sectionWords') });
      }
    }
    return kept;
  };
  const keptNode = (node: Node): Node[] => {
    if (!node.content || node.content.length === 0) return [node];
    const content = keep(node.content);
    if (content.length > 0) return [{ ...node, content }];
    // A table without one of its cells would no longer be one.
    if (node.type === 'tableCell' || node.type === 'tableHeader')
      return [{ ...node, content: [{ type: 'paragraph' }] }];
    // A line or a list of which nothing is left would be a gap that tells where something was.
    return [];
  };
  return { type: 'doc', content: keep(prose.content) };
}

/** Whether something was left out of a document. */
export function hasClosedParts(prose: Prose): boolean {
  const has = (node: Node): boolean => node.type === CLOSED || (node.content ?? []).some(has);
  return prose.content.some(has);
}

/** A document with no section at all: what is open where the item itself is not. */
export const withoutSections = (prose: Prose): Prose => openParts(prose, () => false);

/** The ids of the rules that sections of a document name. */
export function rulesOfSections(prose: Prose): string[] {
  const found = new Set<string>();
  const visit = (node: Node): void => {
    const gate = node.type === 'section' ? asGate(node) : gateOf(sectionMark(node));
    if (gate?.rule) found.add(gate.rule);
    node.content?.forEach(visit);
  };
  prose.content.forEach(visit);
  return [...found];
}

/**
 * Whether a section is open to a person who is let in to its item: by the openers of the rule that it names, or by its
 * own. A rule that is gone or off opens nothing.
 */
export function isSectionOpen(gate: Gate, question: Question): boolean {
  const named = question.rules.find(({ id, on }) => id === gate.rule && on !== false);
  return isOpenTo(gate.rule === null ? gate.openTo : (named?.openTo ?? []), question);
}

/** Whether a section opens or closes at some time by openers of its own. */
export const hasEdges = ({ rule, openTo }: Gate): boolean =>
  rule === null && openTo.some(({ opens, closes }) => opens !== undefined || closes !== undefined);

/** Whether a part of an item is open to a person by openers of its own, whatever else covers the item. */
export function isOpenTo(openTo: Opener[], question: Question): boolean {
  const rule: Rule = { id: 'part', covers: [{ kind: 'item', id: question.item.id }], openTo };
  return decide({ ...question, rules: [rule] }).state === 'open';
}

const asGate = ({ attrs }: Node): Gate => ({
  rule: attrs?.rule ?? null,
  openTo: attrs?.openTo ?? [],
  instead: attrs?.instead ?? '',
});

const sameGate = (one: Gate, other: Gate): boolean => JSON.stringify(one) === JSON.stringify(other);

/** In place of blocks a note, always; in place of words only what the author gave. */
const insteadOf = (node: Node, { instead }: Gate): Node[] => {
  if (node.type === 'section')
    return [{ type: CLOSED, ...(instead && { content: [{ type: 'text', text: instead }] }) }];
  return instead ? [{ type: 'text', text: instead }] : [];
};
