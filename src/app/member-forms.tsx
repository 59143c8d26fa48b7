import type { ReactNode } from 'react';
import { MemberFormsOf } from '@/app/form-words';
import { currentMember, siteWords } from '@/app/session';

/** Around the pages of the site on which members fill in forms. */
export default async function MemberForms({ children }: { children: ReactNode }) {
  const [member, t] = [await currentMember(), await siteWords()];
  if (!member) return children;
  return (
    <MemberFormsOf t={t} email={member.email}>
      {children}
    </MemberFormsOf>
  );
}
