import { Button } from './button';

/** What someone else saved while this was being edited: what differs, theirs beside yours. */
export type Conflict = { version: number; rows: { label: string; theirs: string; yours: string }[] };

type Props = { conflict: Conflict; onMine: () => void; onTheirs: () => void };

/** Shows both versions, and lets one be chosen. */
export function ConflictPanel({ conflict, onMine, onTheirs }: Props) {
  return (
    <div
      role="alert"
      tabIndex={-1}
      data-form-problem
      className="rounded-md border-l-4 border-metered bg-metered-wash px-4 py-3"
    >
      <p className="font-semibold text-metered">
        Someone else saved this while you were editing. Compare the two, then choose which to keep.
      </p>
      {conflict.rows.length > 0 ? (
        <table className="mt-3 w-full bg-surface">
          <thead>
            <tr className="text-left text-muted">
              <th className="p-2 font-semibold">Part</th>
              <th className="p-2 font-semibold">Saved by someone else</th>
              <th className="p-2 font-semibold">Yours</th>
            </tr>
          </thead>
          <tbody>
            {conflict.rows.map((row) => (
              <tr key={row.label} className="border-t border-line align-top">
                <th scope="row" className="p-2 text-left font-semibold">
                  {row.label}
                </th>
                <td className="max-h-40 p-2 whitespace-pre-line">{row.theirs || '(empty)'}</td>
                <td className="max-h-40 p-2 whitespace-pre-line">{row.yours || '(empty)'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="mt-2">Both say the same.</p>
      )}
      <div className="mt-3 flex flex-wrap gap-3">
        <Button onClick={onMine}>Save mine</Button>
        <Button look="quiet" onClick={onTheirs}>
          Use theirs
        </Button>
      </div>
    </div>
  );
}
