'use client';

import { Check, Copy } from 'lucide-react';
import { useState } from 'react';

/** A text that can be selected, or copied with one press; `label` and `copied` say so. */
export function CopyText({ text, label, copied: done }: { text: string; label: string; copied: string }) {
  const [copied, setCopied] = useState(false);
  const copy = async (): Promise<void> => {
    await navigator.clipboard.writeText(text);
    setCopied(true);
    setTimeout(() => setCopied(false), 2_000);
  };
  return (
    <span className="flex items-start gap-1.5">
      <span className="min-w-0 break-all">{text}</span>
      <button
        type="button"
        onClick={() => void copy()}
        aria-label={label}
        title={label}
        className="grid size-7 flex-none place-items-center rounded text-muted hover:bg-sunken hover:text-ink"
      >
        {copied ? (
          <Check className="size-4 text-open" aria-hidden />
        ) : (
          <Copy className="size-4" aria-hidden />
        )}
      </button>
      <span role="status" className="sr-only">
        {copied ? done : ''}
      </span>
    </span>
  );
}
