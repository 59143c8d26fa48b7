'use client';

import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { Clock } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import { showToast } from '@/kit/toasts';
import { panel } from '@/kit/strip-button';
import { desk } from '@/words/desk';

const STEPS = [
  { days: 1, label: desk('desk-frame.a-day') },
  { days: 7, label: desk('desk-frame.a-week') },
  { days: 31, label: desk('desk-frame.a-month') },
];

/** What happened since the clock was moved, a sentence each. */
export type ClockReport = { since: string; lines: string[] };

type Props = {
  clock: string;
  behind: number;
  action: FormAction;
  report: () => Promise<ClockReport | null>;
};

/** The mode, and the rehearsal clock with the means to move it. */
export function ClockPanel({ clock, behind, action, report }: Props) {
  const router = useRouter();
  const wasBehind = useRef(false);
  useEffect(() => {
    if (behind > 0) wasBehind.current = true;
    if (behind > 0 || !wasBehind.current) return;
    wasBehind.current = false;
    void report().then(
      (told) =>
        told && showToast(desk('desk-frame.caught-up', { lines: told.lines.join(' ') }), undefined, 20),
    );
  }, [behind, report]);
  useEffect(() => {
    if (behind === 0) return;
    const timer = setTimeout(() => router.refresh(), 800);
    return () => clearTimeout(timer);
  }, [behind, clock, router]);
  return (
    <Popover className="relative">
      <PopoverButton
        id="clock-button"
        className="figures flex items-center gap-3 rounded-md px-1 py-1 text-sm hover:text-white"
      >
        <Clock className="size-4 text-lamp sm:hidden" aria-hidden />
        <span className="font-semibold whitespace-nowrap text-lamp max-sm:sr-only">
          {desk('desk-frame.no-real-money')}
        </span>
        <span className="whitespace-nowrap text-on-night-soft underline decoration-dotted underline-offset-4 max-md:sr-only">
          {clock}
        </span>
        {behind > 0 && (
          <span role="status" className="text-lamp">
            {desk('desk-frame.catching-up-to-do', { behind })}
          </span>
        )}
      </PopoverButton>
      <PopoverPanel anchor="bottom start" className={panel}>
        <div className="w-72 p-2" style={{ colorScheme: 'inherit' }}>
          <h2 className="text-lg">{desk('desk-frame.rehearsal-clock')}</h2>
          <p className="figures font-semibold">{clock}</p>
          <p className="mt-1 text-[0.9375rem] text-muted">{desk('desk-frame.in-test-mode-the-site')}</p>
          <ActionForm action={action} label={desk('desk-frame.move-the-clock')} className="mt-3 grid gap-3">
            <div className="flex gap-2">
              {STEPS.map((step) => (
                <SubmitButton
                  key={step.days}
                  name="days"
                  value={String(step.days)}
                  look="quiet"
                  busy="…"
                  className="flex-1 px-2"
                >
                  {step.label}
                </SubmitButton>
              ))}
            </div>
          </ActionForm>
          <ActionForm
            action={action}
            label={desk('desk-frame.move-the-clock-by-days')}
            className="mt-3 grid gap-3"
          >
            <div className="flex items-start gap-2">
              <TextField
                name="days"
                label={desk('desk-frame.days')}
                inputMode="numeric"
                defaultValue="15"
                className="flex-1"
              />
              <SubmitButton busy={desk('desk.moving')} className="mt-7">
                {desk('desk-frame.move-forward')}
              </SubmitButton>
            </div>
            <FormMessage />
          </ActionForm>
          <Happened key={`${clock} ${behind}`} report={report} />
        </div>
      </PopoverPanel>
    </Popover>
  );
}

function Happened({ report }: Pick<Props, 'report'>) {
  const [told, setTold] = useState<ClockReport | null>(null);
  useEffect(() => {
    let isHere = true;
    void report().then((found) => isHere && setTold(found));
    return () => {
      isHere = false;
    };
  }, [report]);
  if (!told) return null;
  return (
    <div className="mt-4 border-t border-line pt-3" role="status">
      <h3 className="font-semibold">{told.since}</h3>
      <ul className="figures text-muted">
        {told.lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </div>
  );
}
