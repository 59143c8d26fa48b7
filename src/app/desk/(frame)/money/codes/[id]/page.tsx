import type { Metadata } from 'next';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { codeTermsSchema } from '@/core/tiers/codes';
import { inputAmount } from '@/core/money';
import { codeEditor } from '@/desk/services/codes-place';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { ConfirmAction } from '@/kit/confirm-action';
import { CopyText } from '@/kit/copy-text';
import { config } from '@/platform/config';
import { CodeForm } from '@/tiers/ui/code-form';
import { desk } from '@/words/desk';
import { changeCodesAction, removeCodesAction } from '../actions';

type Props = { params: Promise<{ id: string }> };

export const metadata: Metadata = { title: desk('desk-codes.code') };

export default async function CodePage({ params }: Props) {
  const t = await deskWords();
  await requireStaff('set tiers');
  const { id } = await params;
  const { batch, words, report, ...choices } = await shown(codeEditor(await currentActor(), id));
  const currency = batch.currency ?? choices.currency;
  const amount = batch.discount?.amount;
  const [first = ''] = words;
  return (
    <>
      <MoneyTabs here="codes" />
      <h2 className="mt-6 text-2xl">{batch.name}</h2>
      <p className="figures mt-1 text-muted">
        {desk('desk-codes.report', { uses: report?.uses ?? 0 })}
        {report && report.income.length > 0
          ? `. ${desk('desk-codes.report-income', {
              income: t.list(report.income.map((one) => t.money(one.amount, one.currency))),
            })}`
          : '.'}
      </p>
      {batch.codes === 1 ? (
        <div className="mt-4 max-w-xl">
          <p className="font-semibold">{desk('desk-codes.link')}</p>
          <CopyText
            text={`${config().SITE_URL}/code?word=${encodeURIComponent(first)}`}
            label={desk('desk-codes.copy')}
            copied={desk('desk-codes.copied')}
          />
          <p className="text-[0.9375rem] text-muted">{desk('desk-codes.link-hint')}</p>
        </div>
      ) : (
        <div className="mt-4 max-w-3xl">
          <p className="font-semibold">{desk('desk-codes.some-words')}</p>
          <p className="mt-1 text-[0.9375rem] text-muted">
            {words.join(', ')}
            {batch.codes > words.length &&
              ` ${desk('desk-codes.and-more', { count: batch.codes - words.length })}`}
          </p>
          <a href={`/desk/money/codes/${id}/export`} download className="text-spruce underline">
            {desk('desk-codes.export')}
          </a>
        </div>
      )}
      <CodeForm
        key={batch.version}
        action={changeCodesAction}
        code={{ id, version: batch.version, name: batch.name, terms: codeTermsSchema.parse(batch) }}
        tiers={choices.tiers}
        passes={choices.passes}
        currency={currency}
        amount={amount === undefined ? '' : inputAmount(amount, currency, t.locale)}
      />
      {!report && (
        <div className="mt-6">
          <ConfirmAction
            action={removeCodesAction}
            fields={{ id }}
            summary={desk('desk-codes.delete')}
            question={desk('desk-codes.delete-sure', { name: batch.name })}
            yes={desk('desk-codes.delete-yes')}
            busy={desk('desk.one-moment')}
          />
        </div>
      )}
    </>
  );
}
