import { UNITS, type Length, type Unit } from '@/core/instants';
import { inputClass } from '@/kit/input-class';
import { desk } from '@/words/desk';

/** A length of time: how many of which unit. `n` is not a number while the field is empty. */
export function LengthInput({
  length,
  label,
  onChange,
}: {
  length: Length;
  label: string;
  onChange: (length: Length) => void;
}) {
  return (
    <div className="flex gap-2">
      <input
        type="number"
        min={1}
        max={3650}
        aria-label={`${label} ${desk('desk-access.how-many')}`}
        className={`${inputClass} !w-24 py-1`}
        value={Number.isNaN(length.n) ? '' : length.n}
        onChange={(event) => onChange({ ...length, n: Number.parseInt(event.target.value, 10) })}
      />
      <select
        aria-label={`${label} ${desk('desk-access.unit')}`}
        className={`${inputClass} py-1`}
        value={length.unit}
        onChange={(event) => onChange({ ...length, unit: event.target.value as Unit })}
      >
        {UNITS.map((unit) => (
          <option key={unit} value={unit}>
            {desk(`desk-access.unit-${unit}`)}
          </option>
        ))}
      </select>
    </div>
  );
}
