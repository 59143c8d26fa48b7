import { Fragment } from 'react';

/** An address that breaks, where it must, after its signs and not within a word. */
export function Email({ address }: { address: string }) {
  return address.split(/(?<=[@.])/).map((part, index) => (
    <Fragment key={index}>
      {part}
      <wbr />
    </Fragment>
  ));
}
