/**
 * Card numbers of Curlew Cards' own form: twelve digits, "902", seven more, and two that make the whole divide
 * by 97 (as ISO 7064 MOD 97-10 does). No real card looks like this.
 */
export type Behaviour = 'works' | 'declined' | 'no-funds' | 'expired' | 'fails-second' | 'asks' | 'fails';

export type TestCard = { number: string; behaviour: Behaviour; title: string; tells: string };

/** The number of a card of the gateway's, with its check digits. */
export function numbered(serial: number): string {
  const head = `902${String(serial).padStart(7, '0')}`;
  return head + String(98 - (Number(`${head}00`) % 97)).padStart(2, '0');
}

export const TEST_CARDS: TestCard[] = [
  { number: numbered(1), behaviour: 'works', title: 'Works', tells: 'every charge goes through' },
  { number: numbered(2), behaviour: 'declined', title: 'Declined', tells: 'refused by its bank, at once' },
  {
    number: numbered(3),
    behaviour: 'no-funds',
    title: 'No funds',
    tells: 'refused at once: not enough money in the account',
  },
  { number: numbered(4), behaviour: 'expired', title: 'Expired', tells: 'refused as expired' },
  {
    number: numbered(5),
    behaviour: 'fails-second',
    title: 'Fails later',
    tells: 'the first charge goes through; all later ones fail',
  },
  {
    number: numbered(6),
    behaviour: 'asks',
    title: 'Asks',
    tells: 'asks the payer to confirm before it is saved; every charge goes through',
  },
  {
    number: numbered(7),
    behaviour: 'fails',
    title: 'Fails',
    tells: 'is saved, and every charge fails',
  },
];

export function isCardNumber(number: string): boolean {
  return /^902\d{9}$/.test(number) && Number(number) % 97 === 1;
}

export function behaviourOf(number: string): Behaviour {
  return TEST_CARDS.find((card) => card.number === number)?.behaviour ?? 'works';
}

export const spaced = (number: string): string => number.replace(/(\d{3})(?=\d)/g, '$1 ');
