import type { JoinField } from '@/core/tiers/join-fields';
import type { Words } from '@/words/speak';
import { CheckField, SelectField, TextField } from '@/kit/field';

type Props = { t: Words; field: JoinField; value: string | undefined };

/** One join question. */
export function AnswerField({ t, field, value }: Props) {
  const shared = {
    name: `answers.${field.id}`,
    label:
      field.isRequired || field.kind === 'terms' || field.kind === 'tick'
        ? field.label
        : t('form.optional', { label: field.label }),
    hint: field.hint || undefined,
  };
  if (field.kind === 'tick')
    return (
      <CheckField {...shared} value="yes" defaultChecked={value === 'yes'} required={field.isRequired} />
    );
  if (field.kind === 'terms')
    return (
      <CheckField
        {...shared}
        value="yes"
        required
        hint={
          field.path ? (
            <a href={field.path} target="_blank" rel="noopener noreferrer" className="text-spruce underline">
              {t('checkout.read-terms')}
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
        <option value="">{t('form.choose')}</option>
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
