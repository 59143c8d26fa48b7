import type { ReactNode } from 'react';

/** `areAmounts`: every column but the first holds amounts. */
type Props = { heads: string[]; lastIsAmount?: boolean; areAmounts?: boolean; children: ReactNode };

/** A list of rows. On a narrow screen it scrolls by itself, its first column held, and the page does not. */
export function Table({ heads, lastIsAmount = false, areAmounts = false, children }: Props) {
  return (
    <div className="mt-4 relative overflow-x-auto">
      <table className="held-column figures w-full min-w-[44rem]">
        <thead>
          <tr className="text-left text-muted">
            {heads.map((head, index) => (
              <th
                key={head}
                scope="col"
                className={
                  lastIsAmount && index === heads.length - 1
                    ? 'py-2 text-right font-semibold'
                    : areAmounts && index > 0
                      ? 'py-2 pr-5 text-right font-semibold'
                      : 'py-2 pr-5 font-semibold'
                }
              >
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </table>
    </div>
  );
}
