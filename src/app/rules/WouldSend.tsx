import { sendLimits } from '../../core/effects/effect';
import type { SetupEdit } from '../../core/line/setupEdit';
import type { Rule } from '../../core/rules/rule';
import { count, messages } from '../../core/text/sentences';
import type { WouldSend as Report } from '../../mailroom/border/rules';
import { mailroom } from '../../mailroom/client';
import { useMailbox } from '../state/overview';
import { useAnswer } from '../ui/useAnswer';

const { messagesADay, answeredForDays } = sendLimits;

interface Props {
  rule: Rule;
  edits: SetupEdit[];
}

/** Of whom a rule would have answered, some by address. */
const named = ({ answered, people }: Report): string =>
  people.join(', ') + (answered > people.length ? ` and ${count(answered - people.length)} more` : '');

/** Whom it would have written to, in sentences. */
function Tried({ report, answers, forwards }: { report: Report; answers: boolean; forwards: boolean }) {
  const { of, looked, answered, forwarded } = report;
  if (looked === 0) return <p>None of the mail of others here is of that kind, so it would have sent nothing.</p>;
  return (
    <p className="[overflow-wrap:anywhere]">
      Had {looked < of ? `the newest ${count(looked)} of the ${count(of)}` : `the ${count(of)}`} messages here that it
      matches come in now,{' '}
      {answers && (
        <>
          <strong>{answered === 1 ? '1 person' : `${count(answered)} people`}</strong> would have been answered
          {answered > 0 && ` (${named(report)})`}
        </>
      )}
      {answers && forwards && ', and '}
      {forwards && (
        <>
          <strong>{messages(forwarded)}</strong> would have gone on
        </>
      )}
      {forwarded + answered > messagesADay ? `; within a day ${count(messagesADay)} at most.` : '.'}
    </p>
  );
}

/** Of a rule that sends: when it does, what holds it back, and what it would have sent of the mail here. */
export function WouldSend({ rule, edits }: Props) {
  const answers = rule.then.some((action) => action.do === 'answer');
  const forwards = rule.then.some((action) => action.do === 'forward');
  return answers || forwards ? <Sends rule={rule} edits={edits} answers={answers} forwards={forwards} /> : null;
}

function Sends({ rule, edits, answers, forwards }: Props & { answers: boolean; forwards: boolean }) {
  const revision = useMailbox((s) => s.revision);
  const { value, error, waiting } = useAnswer(
    () => mailroom.wouldSend(edits, rule.id, 'rule sends'),
    `${JSON.stringify(edits)} ${revision}`,
    400,
  );
  return (
    <section
      aria-label="What it would send"
      aria-busy={waiting}
      className="flex flex-col gap-1 border-l-4 border-accent bg-base-200 px-3 py-1.5 text-sm"
    >
      {value && <Tried report={value} answers={answers} forwards={forwards} />}
      {error && <p>{error}</p>}
      <p>
        It sends only of what comes in through the post office from now on, never of what is here; at most{' '}
        {count(messagesADay)} messages a day by all rules together, and nothing twice. What was forwarded before, what
        you wrote, and reports, are not forwarded on.
        {answers &&
          ` Nobody is answered who is a list, a program or you; nobody twice within ${answeredForDays} days; and only where one of your addresses is named in it.`}{' '}
        The Logbook says what was sent.
      </p>
    </section>
  );
}
