'use client';

import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Legend,
  LinearScale,
  Tooltip,
  type ChartOptions,
} from 'chart.js';
import { useEffect, useRef, useState } from 'react';
import { Bar } from 'react-chartjs-2';
import type { KeyCut } from '@/core/key-cut';
import { useDeskWords } from '@/kit/desk-words';
import { TINTS } from '@/kit/key-cut';

Chart.register(BarController, BarElement, CategoryScale, Legend, LinearScale, Tooltip);

type Props = {
  label: string;
  /** Of the columns. */
  times: string[];
  currency: string;
  tiers: { name: string; tint: KeyCut['tint']; amounts: number[] }[];
};
type Colours = { tints: string[]; ink: string; line: string; font: string };

/** What was received in each month or on each day, a layer for each tier. A canvas knows no day and night: its colours are read from the page. */
export function IncomeChart({ label, times, currency, tiers }: Props) {
  const t = useDeskWords();
  const frame = useRef<HTMLDivElement>(null);
  const [colours, setColours] = useState<Colours | null>(null);
  useEffect(() => {
    const read = (): void => {
      const probe = frame.current?.appendChild(document.createElement('i'));
      if (!probe) return;
      const colour = (value: string): string => {
        probe.style.color = value;
        return getComputedStyle(probe).color;
      };
      const found = {
        tints: tiers.map(({ tint }) => colour(TINTS[tint])),
        ink: colour('var(--color-muted)'),
        line: colour('var(--color-line)'),
        font: getComputedStyle(probe).fontFamily,
      };
      Chart.defaults.font.family = found.font;
      probe.remove();
      setColours(found);
    };
    read();
    const night = window.matchMedia('(prefers-color-scheme: dark)');
    const theme = new MutationObserver(read);
    theme.observe(document.documentElement, { attributeFilter: ['data-theme'] });
    night.addEventListener('change', read);
    return () => {
      theme.disconnect();
      night.removeEventListener('change', read);
    };
  }, [tiers]);
  const money = (amount: number): string => t.money(amount, currency);
  const options: ChartOptions<'bar'> = {
    maintainAspectRatio: false,
    animation: false,
    color: colours?.ink,
    interaction: { mode: 'index', intersect: false },
    plugins: {
      legend: { position: 'bottom', align: 'start', labels: { boxWidth: 14, boxHeight: 14 } },
      tooltip: {
        filter: ({ raw }) => Number(raw) > 0,
        callbacks: { label: ({ dataset, raw }) => `${dataset.label ?? ''}: ${money(Number(raw))}` },
      },
    },
    scales: {
      x: {
        stacked: true,
        grid: { display: false },
        ticks: { color: colours?.ink, maxRotation: 0, autoSkipPadding: 16 },
      },
      y: {
        stacked: true,
        border: { display: false },
        grid: { color: colours?.line },
        ticks: {
          color: colours?.ink,
          maxTicksLimit: 6,
          callback: (value) => t.money(Math.round(Number(value)), currency, true),
        },
      },
    },
  };
  return (
    <div ref={frame} className="relative h-72 min-w-0" role="img" aria-label={label}>
      {colours && (
        <Bar
          options={options}
          data={{
            labels: times,
            datasets: tiers.map(({ name, amounts }, index) => ({
              label: name,
              data: amounts,
              backgroundColor: colours.tints[index],
              maxBarThickness: 44,
            })),
          }}
        />
      )}
    </div>
  );
}
