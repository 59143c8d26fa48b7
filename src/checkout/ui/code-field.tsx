import { inputClass } from '@/kit/input-class';
import type { Words } from '@/words/speak';

type Props = { t: Words; name: string; word: string; problem: string };

/** Where a code is typed, in a plain form that opens a page with it. */
export function CodeField({ t, name, word, problem }: Props) {
  return (
    <label className="grid min-w-48 flex-1 gap-1">
      <span className="font-semibold">{t('checkout.code')}</span>
      <input
        name={name}
        defaultValue={word}
        autoComplete="off"
        maxLength={60}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? 'code-problem' : undefined}
        className={inputClass}
      />
    </label>
  );
}

/** What is wrong with the code that was typed. */
export const CodeProblem = ({ problem }: { problem: string }) =>
  problem && (
    <p id="code-problem" role="alert" className="basis-full font-medium text-closed">
      {problem}
    </p>
  );
