import type { Metadata } from 'next';
import { requireStaff } from '@/app/session';
import { SiteImport } from '@/desk/ui/site-import';
import { buttonClass } from '@/kit/button';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-settings.transfer-settings') };

export default async function TransferPage() {
  await requireStaff('set up the site');
  return (
    <>
      <div className="mt-5 grid max-w-5xl items-start gap-8 lg:grid-cols-2">
        <section className="rounded-card border border-line bg-surface p-5">
          <h2 className="text-xl">{desk('desk-settings.export')}</h2>
          <p className="mt-2">{desk('desk-settings.export-hint')}</p>
          <a href="/desk/export/site" download className={buttonClass('main', 'mt-4')}>
            {desk('desk-settings.export-now')}
          </a>
        </section>
        <section className="rounded-card border border-line bg-surface p-5">
          <h2 className="text-xl">{desk('desk-settings.import')}</h2>
          <p className="mt-2">{desk('desk-settings.import-hint')}</p>
          <SiteImport />
        </section>
      </div>
    </>
  );
}
