'use client';

import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '../kit/action-form';

type Books =
  | { ok: true; compared: number; open: number; differences: { key: string; ours: string; theirs: string }[] }
  | { ok: true; none: true }
  | { ok: false; reason: string };
type Props = {
  id: string;
  label: string;
  mode: 'test' | 'live';
  siteKey: string;
  checked: string;
  heard: string | null;
  webhookError: string | null;
  isRegistered: boolean;
  books: Books;
  refused: { id: string; when: string; result: string }[];
  register: FormAction | null;
};

function booksWords(books: Books): { words: string; good: boolean } {
  if (!books.ok) return { words: `cannot be compared now: ${books.reason}`, good: false };
  if ('none' in books)
    return { words: 'kept by the bank: its statements are matched with what is awaited', good: true };
  if (books.differences.length > 0)
    return { words: `${books.differences.length} of ${books.compared} payments differ`, good: false };
  const open = books.open > 0 ? `, ${books.open} under way` : '';
  return {
    words: `equal the gateway's: ${books.compared === 1 ? '1 payment' : `${books.compared} payments`}, no difference${open}`,
    good: true,
  };
}

/** A connected gateway: its keys, its webhook, its books. */
export function GatewayCard({
  id,
  label,
  mode,
  siteKey,
  checked,
  heard,
  webhookError,
  isRegistered,
  books,
  refused,
  register,
}: Props) {
  const router = useRouter();
  useEffect(() => {
    if (heard || !isRegistered) return;
    const timer = setInterval(() => router.refresh(), 1500);
    return () => clearInterval(timer);
  }, [heard, isRegistered, router]);
  const compared = booksWords(books);
  const lines: { name: string; words: string; good: boolean }[] = [
    { name: 'Keys', words: `right when checked, ${checked}`, good: true },
    heard
      ? { name: 'Webhook', words: `heard on ${heard}`, good: true }
      : webhookError
        ? { name: 'Webhook', words: `could not be registered: ${webhookError}`, good: false }
        : { name: 'Webhook', words: 'registered; waiting for the first signed message', good: false },
    { name: 'Books', ...compared },
  ];
  return (
    <section className="rounded-card border border-line bg-surface p-5" aria-label={label}>
      <div className="flex flex-wrap items-baseline gap-3">
        <h2 className="text-xl">{label}</h2>
        <span className="font-semibold text-brass">{mode} mode</span>
        <code className="text-sm break-all text-muted">{siteKey}</code>
      </div>
      <dl className="figures mt-3">
        {lines.map((line) => (
          <div key={line.name} className="flex gap-4 border-t border-line py-2">
            <dt className="w-24 flex-none font-semibold">{line.name}</dt>
            <dd className={line.good ? 'text-open' : 'text-metered'}>{line.words}</dd>
          </div>
        ))}
      </dl>
      {books.ok && 'differences' in books && books.differences.length > 0 && (
        <ul className="mt-2 text-[0.9375rem]">
          {books.differences.slice(0, 20).map((d) => (
            <li key={d.key}>
              {d.key}: here {d.ours}; there {d.theirs}
            </li>
          ))}
        </ul>
      )}
      {refused.length > 0 && (
        <details className="mt-2">
          <summary>
            {refused.length === 1
              ? 'One message was refused lately'
              : `${refused.length} messages were refused lately`}
          </summary>
          <ul className="mt-1 text-[0.9375rem] text-muted">
            {refused.map((r) => (
              <li key={r.id}>
                {r.when}: {r.result}
              </li>
            ))}
          </ul>
        </details>
      )}
      {register && (
        <ActionForm action={register} className="mt-3 grid gap-2">
          <input type="hidden" name="account" value={id} />
          <SubmitButton busy="Registering…" look="quiet" className="w-fit">
            {heard ? 'Register the webhook again' : 'Register the webhook'}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
    </section>
  );
}
