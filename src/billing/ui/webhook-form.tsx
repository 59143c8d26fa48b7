import { WEBHOOK_TOPICS, type WebhookTopic } from '@/core/webhooks';
import { ActionForm, FormMessage, ProblemOf, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

type Props = {
  action: FormAction;
  tiers: { id: string; name: string }[];
  /** Null: a new one. */
  hook: { id: string; url: string; topics: WebhookTopic[]; tiers: string[] | null; isOn: boolean } | null;
};

/** An address that is told of what happens, and of what. */
export function WebhookForm({ action, tiers, hook }: Props) {
  return (
    <ActionForm
      action={action}
      emptyWhenDone={hook === null}
      label={hook ? desk('desk-settings.webhook') : desk('desk-settings.new-webhook')}
      className="grid grid-cols-1 gap-4 rounded-card border border-line bg-surface p-5 [overflow-wrap:anywhere]"
    >
      <h2 className="text-xl">{hook ? desk('desk-settings.webhook') : desk('desk-settings.new-webhook')}</h2>
      {hook && <input type="hidden" name="id" value={hook.id} />}
      <TextField
        name="url"
        label={desk('desk-settings.webhook-url')}
        type="url"
        defaultValue={hook?.url}
        placeholder="https://"
      />
      <fieldset>
        <legend className="mb-1 font-semibold">{desk('desk-settings.webhook-topics')}</legend>
        <ProblemOf name="topics" />
        {WEBHOOK_TOPICS.map((topic) => (
          <Tick
            key={topic}
            name="topics"
            value={topic}
            isOn={hook?.topics.includes(topic) ?? true}
            words={desk(`desk-settings.topic-${topic}`)}
          />
        ))}
      </fieldset>
      {tiers.length > 0 && (
        <fieldset>
          <legend className="font-semibold">{desk('desk-settings.webhook-tiers')}</legend>
          <p className="mb-1 text-[0.9375rem] text-muted">{desk('desk-settings.webhook-tiers-hint')}</p>
          {tiers.map(({ id, name }) => (
            <Tick key={id} name="tiers" value={id} isOn={hook?.tiers?.includes(id) ?? false} words={name} />
          ))}
        </fieldset>
      )}
      {hook && (
        <CheckField
          name="isOn"
          label={desk('desk-settings.webhook-on')}
          hint={desk('desk-settings.webhook-on-hint')}
          defaultChecked={hook.isOn}
        />
      )}
      <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
        {hook ? desk('desk.save') : desk('desk-settings.add-webhook')}
      </SubmitButton>
      <FormMessage />
    </ActionForm>
  );
}

function Tick({ name, value, isOn, words }: { name: string; value: string; isOn: boolean; words: string }) {
  return (
    <label className="mt-1 flex items-start gap-2.5">
      <input
        type="checkbox"
        name={name}
        value={value}
        defaultChecked={isOn}
        className="mt-1 size-4.5 flex-none"
      />
      <span>{words}</span>
    </label>
  );
}
