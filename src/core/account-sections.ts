/** The parts of a member's account that the owner can order and switch off. */
export const ACCOUNT_SECTIONS = ['notes', 'held', 'words', 'receipts', 'payments'] as const;
export type SectionId = (typeof ACCOUNT_SECTIONS)[number];
/** A member can always see and end what they hold; details, password and data are reached from the head of the page. */
export const ALWAYS_ON: readonly SectionId[] = ['held'];

export type AccountSection = { id: SectionId; isOn: boolean };

/** An arrangement made whole: what it leaves out comes last and is on; what must be on is. */
export function wholeArrangement(kept: AccountSection[]): AccountSection[] {
  const known = kept.filter((section, index) => kept.findIndex((other) => other.id === section.id) === index);
  const left = ACCOUNT_SECTIONS.filter((id) => !known.some((section) => section.id === id));
  return [...known, ...left.map((id) => ({ id, isOn: true }))].map((section) => ({
    ...section,
    isOn: section.isOn || ALWAYS_ON.includes(section.id),
  }));
}

/**
 * The sections a member sees, in order: those of the first tier they hold that has an arrangement of its own, else the
 * site's. What another tier of theirs switches on is on as well.
 * @param ofTiers the own arrangements of the tiers that are held, the highest first; null where a tier has none
 */
export function sectionsFor(site: AccountSection[], ofTiers: (AccountSection[] | null)[]): SectionId[] {
  const own = ofTiers.flatMap((arrangement) => (arrangement ? [wholeArrangement(arrangement)] : []));
  const order = own[0] ?? wholeArrangement(site);
  const all = own.length > 0 ? own : [order];
  return order
    .filter(({ id }) =>
      all.some((arrangement) => arrangement.some((section) => section.id === id && section.isOn)),
    )
    .map(({ id }) => id);
}
