import type { Words } from './speak';

/** A payment method as it is stored, in no language: "•••• 0179, 09/29" for a card, else the gateway's name. */
export const cardLabel = (ending: string, expires: string): string => `•••• ${ending}, ${expires}`;

/** A stored payment method as people read it: "card ending 0179, expires 09/29". */
export function methodWords(label: string, t: Words): string {
  const [, ending, expires] = /^•••• (\d+)(?:, (\S+))?$/.exec(label) ?? [];
  if (!ending) return label;
  return expires ? t('pay.card-label-expires', { ending, expires }) : t('pay.card-label', { ending });
}
