import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { inputAmount } from '@/core/money';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { CopyText } from '@/kit/copy-text';
import { passesPlace } from '@/access/services/passes';
import { LinkButton } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { Said } from '@/kit/toasts';
import { config } from '@/platform/config';
import { productEditor, productsPlace } from '@/tiers/services/products';
import { ProductForm } from '@/tiers/ui/product-form';
import { desk } from '@/words/desk';
import { saveProductAction } from '../actions';

type Props = { params: Promise<{ id: string }>; searchParams: Search };

export const metadata: Metadata = { title: desk('desk-products.product') };

export default async function ProductPage({ params, searchParams }: Props) {
  const staff = await requireStaff('set tiers');
  const [{ id }, { saved }, t, actor] = [
    await params,
    await searchOf(searchParams),
    await deskWords(),
    await currentActor(),
  ];
  const { product, currency, taxKinds } = await shown(productEditor(actor, id));
  const { passes, tiers } = await shown(productsPlace(actor));
  const canMakePass = staff.may('set access');
  const canSell = product !== null || canMakePass || passes.length + tiers.length > 0;
  const rules = product?.passId ? await rulesOf(product.passId) : null;
  return (
    <>
      <MoneyTabs here="products" />
      <p className="mt-4">
        <Link href="/desk/money/products" className="text-spruce underline">
          {desk('desk-products.title')}
        </Link>
      </p>
      <h2 className="mt-1 text-2xl break-words">{product?.name ?? desk('desk-products.new')}</h2>
      {saved && <Said words={desk('desk.saved')} link={{ href: `/buy/${id}`, words: desk('desk.view') }} />}
      {canSell ? (
        <ProductForm
          key={product?.version ?? 0}
          action={saveProductAction}
          product={product}
          amount={product ? inputAmount(product.amount, product.currency, t.locale) : ''}
          currency={currency}
          locale={t.locale}
          passes={passes}
          tiers={tiers}
          taxKinds={taxKinds}
          canMakePass={canMakePass}
        />
      ) : (
        <div className="mt-5 max-w-3xl">
          <Empty title={desk('desk-products.nothing-to-sell')}>
            <Link href="/desk/access/passes/new" className="text-spruce underline">
              {desk('desk-products.make-pass')}
            </Link>
          </Empty>
        </div>
      )}
      {product?.passId && rules && (
        <section className="mt-6 grid max-w-xl gap-2" aria-label={desk('desk-products.opens')}>
          <h3 className="text-lg">{desk('desk-products.opens')}</h3>
          {rules.length === 0 ? (
            <p className="border-l-4 border-metered bg-metered-wash px-3 py-2 text-metered">
              {desk('desk-products.opens-nothing')}
            </p>
          ) : (
            <ul className="divide-y divide-line border-y border-line">
              {rules.map((rule) => (
                <li key={rule.id} className="py-2">
                  {canMakePass ? (
                    <Link href={`/desk/access/${rule.id}`} className="font-semibold hover:underline">
                      {rule.name}
                    </Link>
                  ) : (
                    <span className="font-semibold">{rule.name}</span>
                  )}
                </li>
              ))}
            </ul>
          )}
          {canMakePass && (
            <p className="flex flex-wrap items-center gap-x-6 gap-y-2">
              <LinkButton
                href={`/desk/access/new?pass=${product.passId}`}
                look={rules.length > 0 ? 'quiet' : 'main'}
              >
                {desk('desk-products.choose-items')}
              </LinkButton>
              <Link href={`/desk/access/passes/${product.passId}`} className="text-spruce underline">
                {desk('desk-products.what-it-opens')}
              </Link>
            </p>
          )}
        </section>
      )}
      {product && (
        <section className="mt-6 grid max-w-xl gap-2">
          <h3 className="text-lg">{desk('desk-products.where')}</h3>
          <p className="text-muted">{desk('desk-products.where-hint')}</p>
          <p className="[overflow-wrap:anywhere]">
            <CopyText
              text={`${config().SITE_URL}/buy/${product.id}`}
              label={desk('desk-codes.copy')}
              copied={desk('desk-codes.copied')}
            />
          </p>
        </section>
      )}
    </>
  );
}

/** The rules that open something to a pass. */
async function rulesOf(passId: string) {
  const passes = await shown(passesPlace(await currentActor()));
  return passes.find(({ id }) => id === passId)?.rules ?? [];
}
