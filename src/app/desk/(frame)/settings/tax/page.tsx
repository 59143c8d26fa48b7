import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { rateText } from '@/core/tax';
import { taxSettings } from '@/desk/services/site-settings';
import { TaxForm, type TaxDraft } from '@/documents/ui/tax-form';
import { saveTaxAction } from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-settings.tax-and-invoices-settings') };

export default async function TaxPage() {
  await requireStaff('change settings');
  const settings = await shown(taxSettings(await currentActor()));
  const { tax, homeCountry, seller, taxNumber, documentPrefix, tiers, countries } = settings;
  const kinds = tax.kinds.map(({ id, name }) => ({
    id,
    name,
    tiers: tiers.filter((tier) => (tier.taxKindId ?? tax.kinds[0]?.id) === id).map((tier) => tier.id),
    rates: tax.rates
      .filter((rate) => rate.kindId === id)
      // The country's own first, everywhere else last.
      .sort((a, b) => Number(a.country === '') - Number(b.country === ''))
      .map((rate) => ({ country: rate.country, name: rate.name, rate: rateText(rate.rate) })),
  }));
  const initial: TaxDraft = {
    way: tax.way,
    homeCountry,
    seller,
    taxNumber,
    documentPrefix,
    kinds:
      kinds.length > 0
        ? kinds
        : [
            {
              id: '',
              name: desk('desk-settings.membership'),
              tiers: tiers.map((tier) => tier.id),
              rates: [],
            },
          ],
  };
  return (
    <>
      <TaxForm
        action={saveTaxAction}
        initial={initial}
        tiers={tiers.map(({ id, name }) => ({ id, name }))}
        countries={countries}
      />
    </>
  );
}
