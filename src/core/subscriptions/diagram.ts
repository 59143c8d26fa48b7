import { STATES, type Event, type State } from './subscription';
import { LIFE } from './transition';

const WORDS: Record<Event['type'], string> = {
  due: 'falls due',
  paid: 'paid',
  failed: 'failed',
  cancel: 'cancelled',
  'undo-cancel': 'cancelling taken back',
  'end-now': 'ended now',
  pause: 'pause asked for',
  resume: 'resumed',
  renewed: 'renewed',
  switched: 'switched',
  'dispute-opened': 'dispute opened',
  'dispute-won': 'dispute won',
  'dispute-lost': 'dispute lost',
};

/** The table of states and events as a Mermaid state diagram, and what leaves a state as it is as a list. */
export function lifeDiagram(): { diagram: string; stays: { state: State; events: string[] }[] } {
  const lines: string[] = ['stateDiagram-v2', '  [*] --> pending'];
  const stays: { state: State; events: string[] }[] = [];
  for (const from of STATES) {
    const ways = new Map<State, string[]>();
    for (const [event, [, ...to]] of Object.entries(LIFE[from]))
      for (const state of to) ways.set(state, [...(ways.get(state) ?? []), WORDS[event as Event['type']]]);
    for (const [to, events] of ways) {
      if (to === from) stays.push({ state: from, events });
      else lines.push(`  ${from} --> ${to}: ${events.join(', ')}`);
    }
  }
  lines.push('  ended --> [*]');
  return { diagram: lines.join('\n'), stays };
}

/** The page docs/subscription-life.md, whole. */
export function lifePage(): string {
  const { diagram, stays } = lifeDiagram();
  return `# The life of a subscription

Written by \`npm run life\` from the table in \`src/core/subscriptions/transition.ts\`; a test fails where the two differ.

\`\`\`mermaid
${diagram}
\`\`\`

What leaves the state as it is, though it may change dates, or what is held:

${stays.map(({ state, events }) => `- **${state}**: ${events.join(', ')}`).join('\n')}

A pause that was asked for, and a dispute that is open, are no states of their own: \`pauses\` waits for the end of what
is paid, and while \`disputedAt\` is set nothing falls due and nothing is held, whatever the state.
`;
}
