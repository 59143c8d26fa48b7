'use client';

import clsx from 'clsx';
import { useId, useState } from 'react';
import { Button, buttonClass } from '@/kit/button';
import { sendFile, sendPieces, type Sent } from '@/kit/send-file';
import { desk } from '@/words/desk';

type Line = { path: string; is: 'new' | 'changed' | 'same' | 'left-out' | 'problem'; words: string };
type Step = { lines: Line[]; next: number | null; total: number; uploadId: string };
type Stage = 'idle' | 'packing' | 'sending' | 'looking' | 'looked' | 'bringing' | 'done';

const LOOKS: Record<Line['is'], string> = {
  new: 'bg-open-wash text-open',
  changed: 'bg-metered-wash text-metered',
  same: 'bg-ended-wash text-ended',
  'left-out': 'bg-ended-wash text-ended',
  problem: 'bg-closed-wash text-closed',
};
const SORTS = ['problem', 'new', 'changed', 'same'] as const;
/** How many lines of each sort are shown. */
const MOST_SHOWN = 200;

/** A ZIP is looked through first: what would become of each file is said, and only then is it brought in. */
export function SiteImport() {
  const id = useId();
  const [stage, setStage] = useState<Stage>('idle');
  const [share, setShare] = useState(0);
  const [lines, setLines] = useState<Line[]>([]);
  const [problem, setProblem] = useState('');
  const [uploadId, setUploadId] = useState('');

  const run = async (sentId: string, isDry: boolean): Promise<void> => {
    let upload = sentId;
    setStage(isDry ? 'looking' : 'bringing');
    setLines([]);
    setShare(0);
    for (let from: number | null = 0; from !== null;) {
      const sent: Sent<Step> = await sendFile<Step>(
        '/desk/uploads/import',
        JSON.stringify({ uploadId: upload, from, isDry }),
      );
      if (!sent.ok) {
        setProblem(Object.values(sent.problems)[0] ?? '');
        return setStage('idle');
      }
      const { lines: more, next, total }: Step = sent.value;
      // A feed is another upload once it has been read.
      upload = sent.value.uploadId;
      setUploadId(upload);
      setLines((old) => [...old, ...more]);
      setShare(total === 0 ? 1 : (next ?? total) / total);
      from = next;
    }
    setStage(isDry ? 'looked' : 'done');
  };
  const choose = async (file: File): Promise<void> => {
    setProblem('');
    setStage('sending');
    const sent = await sendPieces(file, setShare, true);
    if (!sent.ok) {
      setProblem(Object.values(sent.problems)[0] ?? '');
      return setStage('idle');
    }
    await run(sent.value.id, true);
  };
  const chooseFolder = async (files: File[]): Promise<void> => {
    setProblem('');
    setStage('packing');
    const { zipFolder } = await import('./zip-folder');
    const zip = await zipFolder(files).catch(() => null);
    if (zip) return choose(zip);
    setProblem(desk('desk-settings.folder-unreadable'));
    setStage('idle');
  };
  const isBusy = stage === 'packing' || stage === 'sending' || stage === 'looking' || stage === 'bringing';
  return (
    <div className="mt-4 grid gap-4">
      <div className="flex flex-wrap gap-3">
        <label
          htmlFor={id}
          className={buttonClass('quiet', clsx('w-fit cursor-pointer', isBusy && 'opacity-60'))}
        >
          {desk('desk-settings.choose-zip')}
          <input
            id={id}
            type="file"
            accept=".zip,.xml,.rss,.atom"
            disabled={isBusy}
            className="sr-only"
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = '';
              if (file) void choose(file);
            }}
          />
        </label>
        <label
          htmlFor={`${id}-folder`}
          className={buttonClass('quiet', clsx('w-fit cursor-pointer', isBusy && 'opacity-60'))}
        >
          {desk('desk-settings.choose-folder')}
          <input
            id={`${id}-folder`}
            type="file"
            multiple
            // React knows the attribute by this name alone.
            {...{ webkitdirectory: '' }}
            disabled={isBusy}
            className="sr-only"
            onChange={(event) => {
              const files = [...(event.target.files ?? [])];
              event.target.value = '';
              if (files.length > 0) void chooseFolder(files);
            }}
          />
        </label>
      </div>
      {problem && (
        <p role="alert" className="font-medium text-closed">
          {problem}
        </p>
      )}
      {isBusy && (
        <p role="status" className="flex items-center gap-3">
          <progress
            value={share}
            max={1}
            aria-label={desk(`desk-settings.import-${stage}`)}
            className="w-48"
          />
          {desk(`desk-settings.import-${stage}`)}
        </p>
      )}
      {(stage === 'looked' || stage === 'done') && (
        <p role="status" className="font-semibold">
          {desk(`desk-settings.import-${stage}`)}
        </p>
      )}
      {lines.length > 0 && (
        <ul className="figures flex flex-wrap gap-2">
          {SORTS.map((sort) => (
            <li key={sort} className={clsx('rounded-full px-3 py-0.5 text-sm font-semibold', LOOKS[sort])}>
              {desk(`desk-settings.line-${sort}`)} {lines.filter(({ is }) => is === sort).length}
            </li>
          ))}
        </ul>
      )}
      {stage === 'looked' && lines.some(({ is }) => is === 'new' || is === 'changed') && (
        <Button className="w-fit" onClick={() => void run(uploadId, false)}>
          {desk('desk-settings.import-now')}
        </Button>
      )}
      <ul
        className="max-h-96 divide-y divide-line overflow-y-auto text-[0.9375rem]"
        tabIndex={0}
        aria-label={desk('desk-settings.import-report')}
      >
        {SORTS.filter((sort) => sort !== 'same').flatMap((sort) =>
          lines
            .filter(({ is }) => is === sort)
            .slice(0, MOST_SHOWN)
            .map((line, index) => (
              <li key={`${line.path}:${index}`} className="py-1.5">
                <span className={clsx('mr-2 rounded-full px-2 py-0.5 text-sm font-semibold', LOOKS[sort])}>
                  {desk(`desk-settings.line-${sort}`)}
                </span>
                <span className="[overflow-wrap:anywhere]">{line.path}</span>
                {line.words && <span className="block text-closed">{line.words}</span>}
              </li>
            )),
        )}
      </ul>
    </div>
  );
}
