import type { JoinField } from '@/core/tiers/join-fields';
import { CheckField, SelectField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

/** The questions as the join form asks them; nothing can be typed here. */
export function QuestionPreview({ fields }: { fields: JoinField[] }) {
  const asked = fields.filter(({ isOn, label }) => isOn && label.trim() !== '');
  return (
    <section
      aria-label={desk('desk-tiers.question-preview')}
      className="rounded-card border border-line bg-surface p-5 xl:sticky xl:top-4"
    >
      <h2 className="text-xl">{desk('desk-tiers.question-preview')}</h2>
      <p className="text-muted">{desk('desk-tiers.question-preview-hint')}</p>
      <fieldset disabled className="mt-4 grid max-w-lg gap-4">
        {asked.map((field) => (
          <Asked key={field.id} field={field} />
        ))}
      </fieldset>
    </section>
  );
}

function Asked({ field: { id, kind, label, hint, options, isRequired } }: { field: JoinField }) {
  const name = `preview.${id}`;
  const shared = { name, hint: hint || undefined, defaultValue: '' };
  if (kind === 'tick' || kind === 'terms')
    return <CheckField name={name} label={label} hint={hint || undefined} />;
  const asked = isRequired ? label : desk('desk-tiers.optional-question', { label });
  if (kind === 'choice')
    return (
      <SelectField label={asked} {...shared}>
        <option value="">{desk('desk-settings.choose')}</option>
        {options.filter(Boolean).map((option, index) => (
          <option key={index}>{option}</option>
        ))}
      </SelectField>
    );
  return (
    <TextField
      label={asked}
      type={kind === 'date' ? 'date' : 'text'}
      className={kind === 'date' ? 'w-56' : undefined}
      {...shared}
    />
  );
}
