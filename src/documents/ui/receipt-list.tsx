import { SiteLink } from '@/kit/site-link';
import type { Words } from '@/words/speak';

/** A document as lists show it; dates and amounts in words. */
export type ReceiptRow = {
  id: string;
  title: string;
  label: string;
  date: string;
  words: string;
  amount: string;
};

/** A member's documents, newest first, each to read or to download. */
export function ReceiptList({ t, rows }: { t: Words; rows: ReceiptRow[] }) {
  return (
    <table className="figures w-full">
      <thead className="sr-only">
        <tr>
          <th>{t('account.document')}</th>
          <th>{t('account.for')}</th>
          <th>PDF</th>
          <th>{t('account.amount')}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.id} className="border-t border-line align-top">
            <td className="py-2.5 pr-4 whitespace-nowrap">
              <SiteLink href={`/account/receipts/${row.id}`} className="font-semibold text-spruce underline">
                {row.title} {row.label}
              </SiteLink>
              <span className="block text-[0.9375rem] text-muted">{row.date}</span>
            </td>
            <td className="py-2.5 pr-4 max-sm:hidden">{row.words}</td>
            <td className="py-2.5 pr-4">
              <a
                href={`/account/receipts/${row.id}/pdf`}
                download
                aria-label={t('document.as-pdf', { number: row.label })}
                className="text-spruce underline"
              >
                PDF
              </a>
            </td>
            <td className="py-2.5 text-right font-semibold whitespace-nowrap">{row.amount}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
