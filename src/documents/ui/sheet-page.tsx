import { Link } from '@/kit/link';
import type { Words } from '@/words/speak';
import type { Sheet } from '@/words/sheet';
import { DocumentSheet } from './document-sheet';
import { buttonClass } from '@/kit/button';
import { PrintButton } from '@/kit/print-button';

type Props = { t: Words; sheet: Sheet; back: { href: string; words: string }; pdfHref: string };

/** A document on a page of its own, to read, print or download. */
export function SheetPage({ t, sheet, back, pdfHref }: Props) {
  return (
    <div className="mx-auto w-full max-w-3xl px-5 py-10 print:p-0">
      <div className="mb-5 flex flex-wrap items-center gap-3 print:hidden">
        <Link href={back.href} className="mr-auto text-spruce underline">
          {back.words}
        </Link>
        <PrintButton label={t('document.print')} />
        <a href={pdfHref} download className={buttonClass('quiet')}>
          {t('document.download')}
        </a>
      </div>
      <DocumentSheet sheet={sheet} />
    </div>
  );
}
