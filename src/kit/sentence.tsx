import { Fragment, type ReactNode } from 'react';

type Props = {
  /** Filled in already; `<link>…</link>` in it becomes an element. */
  words: string;
  /** What becomes of each element, from the words within it. */
  parts: Record<string, (words: string) => ReactNode>;
};

/** A sentence with links or emphasis in it, so that a translation can put them where its own order wants them. */
export function Sentence({ words, parts }: Props) {
  return words
    .split(/(<(?<name>[a-z]+)>.*?<\/\k<name>>)/)
    .filter((_, index) => index % 3 !== 2)
    .map((piece, index) => {
      const [, name = '', inner = ''] = /^<([a-z]+)>(.*)<\/\1>$/.exec(piece) ?? [];
      return <Fragment key={index}>{parts[name]?.(inner) ?? piece}</Fragment>;
    });
}
