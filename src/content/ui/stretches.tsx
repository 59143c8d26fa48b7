import { desk } from '@/words/desk';

type Props = { label: string; stretches: { words: string; is: 'same' | 'added' | 'removed' }[] };

/** Two versions of a text in one: what went is struck, what came is underlined. */
export function Stretches({ label, stretches }: Props) {
  if (stretches.every(({ words }) => words.trim() === '')) return null;
  return (
    <div className="mt-4">
      <h3 className="font-semibold">{label}</h3>
      <p className="mt-1 rounded-card border border-line bg-surface p-4 break-words whitespace-pre-wrap">
        {stretches.map(({ words, is }, index) =>
          is === 'added' ? (
            <ins
              key={index}
              className="bg-open-wash text-open"
              aria-label={desk('desk-content.came', { words })}
            >
              {words}
            </ins>
          ) : is === 'removed' ? (
            <del
              key={index}
              className="bg-closed-wash text-closed"
              aria-label={desk('desk-content.went', { words })}
            >
              {words}
            </del>
          ) : (
            <span key={index}>{words}</span>
          ),
        )}
      </p>
    </div>
  );
}
