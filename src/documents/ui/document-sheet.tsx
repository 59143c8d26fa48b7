import type { Sheet } from '@/words/sheet';
import { KeyGlyph } from '@/kit/key-cut';

/** An invoice or another document as a sheet of paper: the same on the screen and in print. */
export function DocumentSheet({ sheet }: { sheet: Sheet }) {
  const hasTax = sheet.lines.some((line) => line.tax !== null);
  return (
    <article className="figures rounded-card border border-line bg-surface p-6 sm:p-10 print:border-0 print:bg-white print:p-0 print:text-black">
      <header className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="flex items-center gap-3 text-3xl">
          <KeyGlyph cut={sheet.keyCut} size={24} /> {sheet.title}
        </h1>
        <p className="text-lg">
          <b>{sheet.label}</b>, {sheet.date}
        </p>
      </header>
      {sheet.about && <p className="mt-1 text-muted">{sheet.about}</p>}
      <div className="mt-8 grid gap-6 sm:grid-cols-2">
        <Party head={sheet.heads.from} lines={sheet.seller} />
        <Party head={sheet.heads.to} lines={sheet.buyer} />
      </div>
      <table className="mt-8 w-full">
        <thead>
          <tr className="text-left text-[0.9375rem] text-muted">
            <th className="py-2 font-semibold">{sheet.heads.for}</th>
            {hasTax && <th className="py-2 text-right font-semibold">{sheet.heads.tax}</th>}
            <th className="py-2 pl-4 text-right font-semibold">{sheet.heads.amount}</th>
          </tr>
        </thead>
        <tbody>
          {sheet.lines.map((line) => (
            <tr key={line.words} className="border-t border-line align-top">
              <td className="py-2.5">{line.words}</td>
              {hasTax && <td className="py-2.5 text-right">{line.tax}</td>}
              <td className="py-2.5 pl-4 text-right">{line.amount}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <dl className="ml-auto grid w-full max-w-xs gap-1 border-t border-line pt-3">
        {sheet.totals.map((total) => (
          <div key={total.words} className="flex items-baseline justify-between gap-6">
            <dt className={total.isMain ? 'text-lg font-semibold' : 'text-muted'}>{total.words}</dt>
            <dd className={total.isMain ? 'font-display text-2xl font-bold' : ''}>{total.amount}</dd>
          </div>
        ))}
      </dl>
      <div className="mt-6 text-muted">
        {sheet.settled.map((words) => (
          <p key={words}>{words}</p>
        ))}
      </div>
    </article>
  );
}

function Party({ head, lines }: { head: string; lines: string[] }) {
  return (
    <section aria-label={head}>
      <h2 className="font-sans text-[0.9375rem] font-semibold text-muted">{head}</h2>
      {lines.map((line, index) => (
        <p key={index} className="break-words">
          {line}
        </p>
      ))}
    </section>
  );
}
