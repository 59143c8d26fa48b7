'use server';

import type { ReactNode } from 'react';
import { previewItem } from '@/access/services/preview-item';
import { currentActor, siteWords } from '@/app/session';
import type { PreviewInput } from '@/content/ui/editor-preview';
import { Preview } from './preview';

/** What is being written, as someone would be shown it; null where that cannot be shown. */
export async function previewAction(input: PreviewInput): Promise<ReactNode> {
  const previewed = await previewItem(await currentActor(), input);
  return previewed.ok ? <Preview t={await siteWords()} previewed={previewed.value} /> : null;
}
