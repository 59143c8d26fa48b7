import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { systemUse } from '@/platform/use';
import { issueDocuments } from './lib/issue-documents';

/** Makes the documents of what was paid, went back, or is owed. The answer is how many were made. */
export const issueDueDocuments = systemUse('issue-due-documents', nothing, async () =>
  done(await issueDocuments()),
);
