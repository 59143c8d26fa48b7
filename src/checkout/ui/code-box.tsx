import { SiteLink } from '@/kit/site-link';
import { buttonClass } from '@/kit/button';
import { inputClass } from '@/kit/input-class';
import type { Words } from '@/words/speak';

type Props = {
  t: Words;
  /** The code that was typed; '' for none. */
  word: string;
  problem: string;
  /** What it takes off, in words; '' where it takes nothing off. */
  does: string;
  /** Whether nobody joins without one. */
  isNeeded: boolean;
  /** What else is in the address and stays there. */
  keep: Record<string, string>;
};

/** A code is used by opening the page with it: the price that is shown is then the one that is charged. */
export function CodeBox({ t, word, problem, does, isNeeded, keep }: Props) {
  const kept = Object.entries(keep).filter(([, value]) => value !== '');
  if (word && !problem)
    return (
      <p className="max-w-xl rounded-md bg-open-wash px-4 py-2.5 text-open">
        <b>{t('code.used', { code: word })}</b> {does}{' '}
        <SiteLink
          href={`?${new URLSearchParams([...kept, ['code', '']]).toString()}`}
          className="whitespace-nowrap underline"
        >
          {t('code.without')}
        </SiteLink>
      </p>
    );
  const form = (
    <form className="mt-2 flex max-w-xl flex-wrap items-end gap-3">
      {kept.map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <label className="grid min-w-48 flex-1 gap-1">
        <span className="font-semibold">{t('checkout.code')}</span>
        <input
          name="code"
          defaultValue={word}
          autoComplete="off"
          maxLength={60}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? 'code-problem' : undefined}
          className={inputClass}
        />
      </label>
      <button className={buttonClass('quiet')}>{t('code.use')}</button>
      {problem && (
        <p id="code-problem" role="alert" className="basis-full font-medium text-closed">
          {problem}
        </p>
      )}
    </form>
  );
  if (isNeeded)
    return (
      <div>
        <p className="text-lg">{t('code.needed')}</p>
        {form}
      </div>
    );
  return (
    <details open={problem !== ''}>
      <summary className="w-fit cursor-pointer text-spruce underline">{t('code.have-one')}</summary>
      {form}
    </details>
  );
}
