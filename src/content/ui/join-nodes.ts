import { Node } from '@tiptap/core';
import { desk } from '@/words/desk';

/** A join button and a join panel as the editor shows them. */
const block = (name: string, attribute: string, words: (attrs: Record<string, unknown>) => string) =>
  Node.create({
    name,
    group: 'block',
    atom: true,
    parseHTML: () => [{ tag: `div[data-${attribute}]` }],
    renderHTML: ({ node }) => [
      'div',
      {
        [`data-${attribute}`]: '',
        class: 'rounded-lg border border-dashed border-edge/60 bg-sunken px-4 py-2 text-base font-semibold',
      },
      words(node.attrs),
    ],
  });

export const JoinButton = block('joinButton', 'join-button', ({ label, icon, asksName }) =>
  [
    desk('desk-content.join-button', { label: String(label) }),
    icon === true && desk('desk-content.as-icon'),
    asksName === true && desk('desk-content.asks-name'),
  ]
    .filter(Boolean)
    .join(' · '),
).extend({
  addAttributes: () => ({
    offer: { default: '' },
    label: { default: 'Join' },
    icon: { default: undefined },
    asksName: { default: undefined },
  }),
});

export const JoinPanel = block('joinPanel', 'join-panel', ({ tiers }) =>
  Array.isArray(tiers) && tiers.length > 0
    ? desk('desk-content.join-panel', { tiers: tiers.join(', ') })
    : desk('desk-content.join-panel-all'),
).extend({
  addAttributes: () => ({ tiers: { default: [] } }),
});

export const BuyPanel = block('buyPanel', 'buy-panel', ({ product }) =>
  desk('desk-content.buy-panel', { product: String(product) }),
).extend({ addAttributes: () => ({ product: { default: '' } }) });
