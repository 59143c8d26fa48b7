'use server';

import type { ReactNode } from 'react';
import { previewItem } from '@/access/services/preview-item';
import { currentActor, siteWords } from '@/app/session';
import type { PreviewInput } from '@/content/ui/editor-preview';
import { Preview } from './preview';

/** What is being written, as someone would be shown it. @throws where it cannot be shown */
export async function previewAction({ title, ...input }: PreviewInput): Promise<ReactNode> {
  const previewed = await previewItem(await currentActor(), input);
  if (!previewed.ok) throw new Error('there is no preview');
  return (
    <Preview
      t={await siteWords()}
      title={title.slice(0, 200)}
      previewed={previewed.value}
      isSignedIn={input.as !== 'visitor'}
    />
  );
}
