import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { LinkButton } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { Table } from '@/kit/table';
import { productsPlace } from '@/tiers/services/products';
import { desk } from '@/words/desk';
import { lengthWords } from '@/words/offers';

export const metadata: Metadata = { title: desk('desk-products.title') };

export default async function ProductsPage() {
  const [t, staff] = [await deskWords(), await requireStaff('look')];
  const { products } = await shown(productsPlace(await currentActor()));
  return (
    <>
      <MoneyTabs here="products" />
      <div className="mt-4 flex flex-wrap items-start justify-between gap-4">
        <p className="max-w-prose text-muted">{desk('desk-products.intro')}</p>
        {staff.may('set tiers') && (
          <LinkButton href="/desk/money/products/new">{desk('desk-products.add')}</LinkButton>
        )}
      </div>
      {products.length === 0 ? (
        <div className="mt-5 max-w-3xl">
          <Empty title={desk('desk-products.none')}>{desk('desk-products.none-hint')}</Empty>
        </div>
      ) : (
        <Table
          heads={[
            desk('desk.name'),
            desk('desk-products.what'),
            desk('desk-products.lasts'),
            desk('desk-products.on-sale'),
            desk('desk.amount'),
          ]}
          lastIsAmount
        >
          {products.map((product) => (
            <tr key={product.id} className="border-t border-line">
              <th scope="row" className="py-2 pr-5 text-left font-semibold">
                {staff.may('set tiers') ? (
                  <Link href={`/desk/money/products/${product.id}`} className="hover:underline">
                    {product.name}
                  </Link>
                ) : (
                  product.name
                )}
              </th>
              <td className="py-2 pr-5">{desk(`desk-products.kind-${product.kind}`)}</td>
              <td className="py-2 pr-5">
                {product.lasts ? lengthWords(product.lasts, t) : desk('desk.for-good')}
              </td>
              <td className="py-2 pr-5">
                {product.onSale ? desk('desk-products.yes') : desk('desk-products.no')}
              </td>
              <td className="figures py-2 text-right font-semibold whitespace-nowrap">
                {t.money(product.amount, product.currency)}
              </td>
            </tr>
          ))}
        </Table>
      )}
    </>
  );
}
