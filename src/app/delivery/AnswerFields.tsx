import type { AutomaticAnswer } from '../../core/delivery/automaticAnswer';
import type { Setup } from '../../core/line/setup';
import { count, messages } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { useMailbox } from '../state/overview';
import { NumberField, Switch } from '../ui/fields';
import { useAnswer } from '../ui/useAnswer';
import { Waiting } from '../ui/Waiting';

interface AnswerFieldsProps {
  answer: AutomaticAnswer;
  setup: Setup;
  /** Whether there is a post office that could send it. */
  sends: boolean;
  onChange: (answer: AutomaticAnswer) => void;
}

/** The automatic answer while a hold is on: whether, how often, and what it says for each account. */
export function AnswerFields({ answer, setup, sends, onChange }: AnswerFieldsProps) {
  const textOf = (account: string) =>
    answer.texts.find((one) => one.account === account) ?? { account, subject: '', text: '' };
  const put = (account: string, part: { subject?: string; text?: string }) => {
    const next = { ...textOf(account), ...part };
    const others = answer.texts.filter((one) => one.account !== account);
    onChange({ ...answer, texts: next.subject || next.text ? [...others, next] : others });
  };
  return (
    <section aria-labelledby="automatic-answer" className="flex flex-col gap-3">
      <h2 id="automatic-answer" className="text-lg font-semibold">
        Automatic answer
      </h2>
      <Switch
        word="Answer what a hold keeps"
        what="It makes more mail, so it is off. Never to lists, programs, junk, or anybody twice within some days."
        on={answer.on}
        onChange={(on) => onChange({ ...answer, on })}
      />
      {!sends && (
        <p className="border-l-4 border-accent bg-base-200 px-3 py-2 text-sm">
          This mailbox has no post office: nothing can be sent from here, and nothing is answered.
        </p>
      )}
      {answer.on && (
        <>
          <div className="flex items-center gap-2">
            To one person once in
            <NumberField
              label="Days until somebody is answered again"
              unit="days"
              least={1}
              most={60}
              value={answer.days}
              onChange={(days) => onChange({ ...answer, days })}
            />
          </div>
          {setup.accounts.length === 0 && (
            <p className="text-sm">Say under Accounts which addresses are yours: only what names one is answered.</p>
          )}
          {setup.accounts.map(({ id, name, address }) => (
            <fieldset key={id} className="flex flex-col gap-1 rounded border border-base-300 p-3">
              <legend className="px-1 text-sm font-semibold">
                {name} <span className="font-mono font-normal">{address}</span>
              </legend>
              <label className="flex flex-col gap-1 text-sm">
                Subject
                <input
                  className="input w-full input-sm"
                  maxLength={500}
                  placeholder="Auto: and the subject that is answered"
                  value={textOf(id).subject}
                  onChange={(event) => put(id, { subject: event.target.value })}
                />
              </label>
              <label className="flex flex-col gap-1 text-sm">
                Text; without one this account does not answer
                <textarea
                  className="textarea w-full"
                  rows={3}
                  maxLength={20_000}
                  value={textOf(id).text}
                  onChange={(event) => put(id, { text: event.target.value })}
                />
              </label>
            </fieldset>
          ))}
          <Tried answer={answer} />
        </>
      )}
    </section>
  );
}

/** Who would have been answered lately. */
function Tried({ answer }: { answer: AutomaticAnswer }) {
  const revision = useMailbox((s) => s.revision);
  const { value, error, waiting } = useAnswer(
    () => mailroom.automaticAnswerDryRun(answer),
    `${JSON.stringify(answer)} ${revision}`,
    300,
  );
  return (
    <section aria-label="Who would have been answered" aria-busy={waiting} className="text-sm">
      {error && <p className="border-l-4 border-error bg-base-200 px-3 py-2">{error}</p>}
      {!value && !error && <Waiting says="Trying it on the last seven days …" />}
      {value && (
        <>
          <p>
            Had a hold been on for the last {count(value.days)} days, of {messages(value.held)} that it would have kept{' '}
            <strong>{count(value.total)}</strong> would have been answered
            {value.not.length > 0 && '; the others not, because '}
            {value.not.map(({ why, count: n }) => `${why} (${count(n)})`).join(', ')}.
          </p>
          {value.answered.length > 0 && (
            <ul aria-label="Would have been answered" className="mt-1 max-h-48 overflow-y-auto" tabIndex={0}>
              {value.answered.map(({ to, row }) => (
                <li key={row.id} className="truncate">
                  <span className="font-mono">{to}</span> <span className="quiet">{row.subject || 'No subject'}</span>
                </li>
              ))}
            </ul>
          )}
          {value.total > value.answered.length && <p>and {count(value.total - value.answered.length)} more.</p>}
        </>
      )}
    </section>
  );
}
