import type { ServerResponse } from 'node:http';
import { escape } from './pages';

const MESSAGES = ['sent', 'doubled', 'shuffled', 'lost'] as const;
const CALLS = ['answered', 'failing', 'done-then-failing', 'down'] as const;

/** What goes wrong on demand. `done-then-failing` does what it was asked, and then answers 500. */
export type FaultSettings = {
  slowMs: number;
  calls: (typeof CALLS)[number];
  messages: (typeof MESSAGES)[number];
  /** Whether an address for messages can be registered by a call. */
  refusesHooks: boolean;
};

export class Faults {
  settings: FaultSettings = { slowMs: 0, calls: 'answered', messages: 'sent', refusesHooks: false };

  /** From the form of the stand-in's own page; what is not named goes back to normal. */
  set(form: URLSearchParams): void {
    const slow = Number(form.get('slowMs')) || 0;
    this.settings = {
      slowMs: Math.min(60_000, Math.max(0, slow)),
      calls: CALLS.find((one) => one === form.get('calls')) ?? 'answered',
      messages: MESSAGES.find((one) => one === form.get('messages')) ?? 'sent',
      refusesHooks: form.get('refusesHooks') === 'yes',
    };
  }

  /** Before a call is done: true where it must not be, because nobody is there or it fails at once. */
  stopsCall(response: ServerResponse): boolean {
    if (this.settings.calls === 'down') response.destroy();
    else if (this.settings.calls === 'failing') response.writeHead(500).end('{}');
    else return false;
    return true;
  }

  /** After a call was done, before its answer goes out: true where the answer is lost. */
  async losesAnswer(response: ServerResponse): Promise<boolean> {
    if (this.settings.slowMs > 0) await new Promise((resolve) => setTimeout(resolve, this.settings.slowMs));
    if (this.settings.calls !== 'done-then-failing') return false;
    response.writeHead(500).end('{}');
    return true;
  }

  form(): string {
    const { slowMs, calls, messages, refusesHooks } = this.settings;
    const options = (all: readonly string[], now: string): string =>
      all.map((one) => `<option${one === now ? ' selected' : ''}>${escape(one)}</option>`).join('');
    return `<form method="post" action="/faults" class="row">
      <div><label for="slow">Answers after (milliseconds)</label><input id="slow" name="slowMs" type="number" min="0" max="60000" value="${slowMs}"></div>
      <div><label for="calls">Calls are</label><select id="calls" name="calls">${options(CALLS, calls)}</select></div>
      <div><label for="messages">Messages are</label><select id="messages" name="messages">${options(MESSAGES, messages)}</select></div>
      <div><label for="hooks">Addresses for messages</label><select id="hooks" name="refusesHooks"><option value="">can be registered</option><option value="yes"${refusesHooks ? ' selected' : ''}>only by hand</option></select></div>
      <button>Set</button></form>`;
  }
}
