import Link from 'next/link';
import type { Sheet } from '@/core/documents';
import { DocumentSheet } from './document-sheet';
import { buttonClass } from '@/kit/button';
import { PrintButton } from '@/kit/print-button';

type Props = { sheet: Sheet; back: { href: string; words: string }; pdfHref: string };

/** A document on a page of its own, to read, print or keep. */
export function SheetPage({ sheet, back, pdfHref }: Props) {
  return (
    <div className="mx-auto w-full max-w-3xl px-5 py-10 print:p-0">
      <div className="mb-5 flex flex-wrap items-center gap-3 print:hidden">
        <Link href={back.href} className="mr-auto text-spruce underline">
          {back.words}
        </Link>
        <PrintButton />
        <a href={pdfHref} download className={buttonClass('quiet')}>
          Download as PDF
        </a>
      </div>
      <DocumentSheet sheet={sheet} />
    </div>
  );
}
