import type { Edges } from './life';
import { CHECKOUT_LIFE, LIFE } from './life';

/** A table of states and events as a Mermaid state diagram. */
function diagram<S extends string>(edges: Edges<S>, ends: S[]): string {
  const lines = ['stateDiagram-v2'];
  for (const [from, ways] of Object.entries(edges) as [string, Partial<Record<string, readonly string[]>>][])
    for (const [to, events] of Object.entries(ways))
      lines.push(`  ${from === 'begins' ? '[*]' : from} --> ${to}: ${(events ?? []).join(', ')}`);
  for (const end of ends) lines.push(`  ${end} --> [*]`);
  return lines.join('\n');
}

/** The page docs/subscription-life.md, whole. */
export const lifePage = (): string => `# The life of a subscription

Written by \`npm run life\` from the tables in \`src/core/billing/life.ts\`; a test fails where the two differ, and a step that
takes another way is not stored. The words at the arrows are the events of \`src/core/billing/step.ts\`.

\`\`\`mermaid
${diagram(LIFE, ['ended'])}
\`\`\`

What a switch ends and what it begins are two subscriptions: the same event ends the one and begins the other. A pause that was
asked for, a switch that waits for the end of what is paid, and a dispute are no states of their own.

# The life of a checkout

It follows from what it began: a charge that is asked for, a wallet's page, a transfer. Until an address is confirmed it is in
nobody's book; then it is open.

\`\`\`mermaid
${diagram(CHECKOUT_LIFE, ['done', 'expired'])}
\`\`\`
`;
