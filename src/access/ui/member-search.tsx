'use client';

import { useEffect, useState } from 'react';
import { inputClass } from '@/kit/input-class';
import { desk } from '@/words/desk';

export type FoundMember = { id: string; name: string; email: string };
export type FindMembers = (words: string) => Promise<FoundMember[]>;

const PAUSE = 250;

/** Members by a part of their name or address, as one types. @returns undefined until they are known */
export function useFoundMembers(words: string, find: FindMembers): FoundMember[] | undefined {
  const [found, setFound] = useState<{ words: string; members: FoundMember[] }>({ words: '', members: [] });
  useEffect(() => {
    if (words.trim() === '') return;
    const wait = setTimeout(() => void find(words).then((members) => setFound({ words, members })), PAUSE);
    return () => clearTimeout(wait);
  }, [words, find]);
  return words.trim() !== '' && found.words === words ? found.members : undefined;
}

type Props = { find: FindMembers; label: string; onChoose: (member: FoundMember) => void };

/** Chooses a member, found by typing. */
export function MemberSearch({ find, label, onChoose }: Props) {
  const [words, setWords] = useState('');
  const found = useFoundMembers(words, find);
  return (
    <div>
      <input
        type="search"
        aria-label={label}
        placeholder={label}
        value={words}
        maxLength={100}
        onChange={(event) => setWords(event.target.value)}
        // Return would send the form around it.
        onKeyDown={(event) => event.key === 'Enter' && event.preventDefault()}
        className={inputClass}
        autoComplete="off"
      />
      <ul role="status" className="mt-1">
        {found?.map((member) => (
          <li key={member.id}>
            <button
              type="button"
              className="w-full rounded px-3 py-1.5 text-left hover:bg-sunken"
              onClick={() => {
                onChoose(member);
                setWords('');
              }}
            >
              {member.name} <span className="text-muted">{member.email}</span>
            </button>
          </li>
        ))}
        {found?.length === 0 && (
          <li className="px-3 py-1.5 text-muted">{desk('desk-access.no-such-member')}</li>
        )}
      </ul>
    </div>
  );
}
