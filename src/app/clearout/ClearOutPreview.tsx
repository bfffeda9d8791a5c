import { outstanding, type ClearOut, type Outstanding } from '../../core/clearout/clearOut';
import type { Setup } from '../../core/line/setup';
import type { ClearOutReport } from '../../mailroom/border/clearOuts';
import { RowLines } from '../ui/RowLines';
import { Waiting } from '../ui/Waiting';
import { dayOf, sizeWords } from '../../core/text/time';
import { count, messages } from '../../core/text/sentences';

const reasons: Record<Outstanding, string> = {
  flagged: 'flagged',
  unanswered: 'to you alone, and unanswered',
  known: 'from people you wrote to or have a card for',
  attachments: 'with attachments',
};

interface PreviewProps {
  report: ClearOutReport | null;
  waiting: boolean;
  error: string | null;
  progress: { done: number; total: number } | null;
  choice: ClearOut;
  setup: Setup;
  /** What it is cleared out of, in words. */
  name: string;
  onSpare: (spare: Outstanding[]) => void;
}

/** What a clear-out would touch: how many, how large, from when to when, what stands out, and a sample. */
export function ClearOutPreview({ report, waiting, error, progress, choice, setup, name, onSpare }: PreviewProps) {
  if (error) return <p className="border-l-4 border-error bg-base-200 px-3 py-2">{error}</p>;
  if (!report)
    return (
      <Waiting
        says="Looking through the mail …"
        progress={progress && { what: 'Reading conversations', ...progress }}
      />
    );
  const standing = outstanding.filter((reason) => report.standsOut[reason] > 0);
  return (
    <section aria-label="What would go" aria-busy={waiting} className="flex flex-col gap-4">
      <div>
        <p role="status" className="text-lg">
          {report.count === 0 ? (
            'Nothing would go.'
          ) : (
            <>
              <strong>{messages(report.count)}</strong> of {count(report.of)} would go.
            </>
          )}
        </p>
        {report.count > 0 && report.from !== null && report.to !== null && (
          <p className="quiet">
            {sizeWords(report.bytes)} · {count(report.unread)} unread · from {dayOf(report.from)} to {dayOf(report.to)}
          </p>
        )}
        <p className="quiet">
          {count(report.of - report.count)} stay in {name}
          {report.kept > 0 &&
            `, ${count(report.kept)} of them because ${choice.keepNewest > 0 ? 'they are the newest' : 'you ticked them'}`}
          {report.spared > 0 && `, ${count(report.spared)} because they stand out`}.
        </p>
      </div>
      {standing.length > 0 && (
        <div>
          <h2 className="mb-1 font-semibold">What stands out</h2>
          <ul className="flex flex-col gap-1">
            {standing.map((reason) => {
              const spared = choice.spare.includes(reason);
              const rows = report.examples[reason];
              return (
                <li key={reason} className="border-l-4 border-accent bg-base-200 px-3 py-1.5">
                  <div className="flex flex-wrap items-center gap-x-3">
                    <span className="min-w-0 flex-1">
                      <strong>{count(report.standsOut[reason])}</strong> {reasons[reason]}
                    </span>
                    <label className="flex items-center gap-2 text-sm">
                      <input
                        type="checkbox"
                        className="checkbox"
                        checked={spared}
                        onChange={(event) =>
                          onSpare(
                            event.target.checked
                              ? [...choice.spare, reason]
                              : choice.spare.filter((other) => other !== reason),
                          )
                        }
                      />
                      leave {report.standsOut[reason] === 1 ? 'it' : 'these'} here
                    </label>
                  </div>
                  {rows.length > 0 && !spared && (
                    <details>
                      <summary className="min-h-6 cursor-pointer text-sm">
                        {rows.length < report.standsOut[reason] ? `See the newest ${count(rows.length)}` : 'See which'}
                      </summary>
                      <RowLines rows={rows} setup={setup} label={`Those ${reasons[reason]}`} />
                    </details>
                  )}
                </li>
              );
            })}
          </ul>
        </div>
      )}
      {report.newest.length > 0 && (
        <div>
          <h2 className="mb-1 font-semibold">{report.oldest.length ? 'The newest of them' : 'All of them'}</h2>
          <RowLines rows={report.newest} setup={setup} label="The newest of those that go" />
        </div>
      )}
      {report.oldest.length > 0 && (
        <div>
          <h2 className="mb-1 font-semibold">The oldest of them</h2>
          <RowLines rows={report.oldest} setup={setup} label="The oldest of those that go" />
        </div>
      )}
    </section>
  );
}
