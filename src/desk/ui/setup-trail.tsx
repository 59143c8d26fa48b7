import clsx from 'clsx';
import { Link } from '@/kit/link';
import { desk } from '@/words/desk';
import type { Step } from './trail-steps';

/** The way to a site that takes members; each step is proved by what really happened, never by a tick. */
export function SetupTrail({ steps }: { steps: Step[] }) {
  const next = steps.findIndex((step) => !step.isDone);
  return (
    <section aria-labelledby="trail" className="h-fit rounded-card border border-line bg-surface p-5">
      <h2 id="trail" className="text-xl">
        {next === -1
          ? desk('desk-frame.everything-has-been-proved-once')
          : desk('desk-frame.the-way-to-your-first-member')}
      </h2>
      <ol className="mt-4">
        {steps.map((step, index) => (
          <li key={step.title} className="relative pb-5 pl-8 last:pb-0">
            {index < steps.length - 1 && (
              <span
                aria-hidden
                className={clsx(
                  'absolute top-4 bottom-0 left-[0.4375rem] w-0.5',
                  step.isDone ? 'bg-open' : 'bg-line',
                )}
              />
            )}
            <span
              aria-hidden
              className={clsx(
                'absolute top-1 left-0 size-4 rotate-45 rounded-[3px] border-2',
                step.isDone
                  ? 'border-open bg-open'
                  : index === next
                    ? 'border-brass bg-surface'
                    : 'border-line bg-surface',
              )}
            />
            <Link
              href={step.href}
              className={clsx('font-semibold hover:underline', index === next && 'text-brass')}
            >
              {step.title}
            </Link>
            <p className="text-[0.9375rem] text-muted">
              {step.proof ?? (index === next ? desk('desk-frame.do-this-next') : desk('desk-frame.not-yet'))}
            </p>
          </li>
        ))}
      </ol>
    </section>
  );
}
