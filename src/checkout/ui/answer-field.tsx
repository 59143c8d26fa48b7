import type { JoinField } from '@/core/tiers/join-fields';
import { CheckField, SelectField, TextField } from '@/kit/field';

/** One thing that the owner asks for at joining. */
export function AnswerField({ field, value }: { field: JoinField; value: string | undefined }) {
  const shared = {
    name: `answers.${field.id}`,
    label:
      field.isRequired || field.kind === 'terms' || field.kind === 'tick'
        ? field.label
        : `${field.label} (optional)`,
    hint: field.hint || undefined,
  };
  if (field.kind === 'tick') return <CheckField {...shared} value="yes" defaultChecked={value === 'yes'} />;
  if (field.kind === 'terms')
    return (
      <CheckField
        {...shared}
        value="yes"
        hint={
          field.path ? (
            <a href={field.path} target="_blank" rel="noopener noreferrer" className="text-spruce underline">
              Read it in another window
            </a>
          ) : (
            shared.hint
          )
        }
      />
    );
  if (field.kind === 'choice')
    return (
      <SelectField {...shared} defaultValue={value ?? ''} className="sm:w-96" required={field.isRequired}>
        <option value="">Choose…</option>
        {field.options.map((option) => (
          <option key={option}>{option}</option>
        ))}
      </SelectField>
    );
  return (
    <TextField
      {...shared}
      type={field.kind === 'date' ? 'date' : 'text'}
      defaultValue={value}
      className={field.kind === 'date' ? 'sm:w-56' : undefined}
      required={field.isRequired}
    />
  );
}
