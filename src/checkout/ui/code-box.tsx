import { CodeField, CodeProblem } from './code-field';
import { SiteLink } from '@/kit/site-link';
import { buttonClass } from '@/kit/button';
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
      <p className="mt-4 max-w-xl rounded-md bg-open-wash px-4 py-2.5 text-open">
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
      <CodeField t={t} name="code" word={word} problem={problem} />
      <button className={buttonClass('quiet')}>{t('code.use')}</button>
      <CodeProblem problem={problem} />
    </form>
  );
  if (isNeeded)
    return (
      <div className="mt-4">
        <p className="text-lg">{t('code.needed')}</p>
        {form}
      </div>
    );
  return (
    <details open={problem !== ''} className="mt-4">
      <summary className="w-fit cursor-pointer text-spruce underline">{t('code.have-one')}</summary>
      {form}
    </details>
  );
}
