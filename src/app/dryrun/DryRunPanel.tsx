import { countedEffects } from '../../core/effects/effects';
import { placeName } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import type { DryRunResult } from '../../mailroom/border/rules';
import { ChangedMessages } from './ChangedMessages';
import type { DryRun } from './useDryRun';
import { Waiting } from '../ui/Waiting';
import { count, messages } from '../../core/text/sentences';

interface DryRunPanelProps {
  answer: DryRun<DryRunResult>;
  setup: Setup;
  /** What to say when nothing would change. */
  none: string;
}

const would = (n: number, what: string): string => `${messages(n)} ${what}`;

/** The dry run: what would become of the mail here, wanted mail first. */
export function DryRunPanel({ answer, setup, none }: DryRunPanelProps) {
  const { value, error, waiting } = answer;
  const name = (place: Parameters<typeof placeName>[0]) => placeName(place, setup.folders);
  return (
    <section aria-label="Dry run" aria-busy={waiting} className="flex flex-col gap-3">
      <h2 className="text-lg font-semibold">
        Dry run{waiting && value && <span className="quiet text-sm font-normal"> trying it again …</span>}
      </h2>
      {error && <p className="border-l-4 border-error bg-base-200 px-3 py-2">{error}</p>}
      {value && !value.ok && <p className="border-l-4 border-accent bg-base-200 px-3 py-2">{value.error}</p>}
      {!value && !error && <Waiting says="Trying it on the mail here …" />}
      {value?.ok && (
        <div className="flex flex-col gap-3">
          {value.report.matching !== null && (
            <p>
              The conditions match <strong>{messages(value.report.matching)}</strong> here.
            </p>
          )}
          {value.report.total === 0 ? (
            <p>{none}</p>
          ) : (
            <ul className="flex flex-col gap-1" aria-label="What would change">
              {value.report.moves.map((move) => (
                <li key={`${move.from} ${move.to}`}>
                  <strong>{would(move.count, 'would go')}</strong> from {name(move.from)} to {name(move.to)}.
                </li>
              ))}
              {countedEffects.map(({ name, would: says }) => {
                const changed = value.report.effects[name] ?? 0;
                return changed > 0 && <li key={name}>{would(changed, says)}.</li>;
              })}
            </ul>
          )}
          {(value.report.wanted.writtenTo > 0 || value.report.wanted.flagged > 0) && (
            <p className="border-l-4 border-accent bg-base-200 px-3 py-2">
              {[
                value.report.wanted.writtenTo > 0 &&
                  `${messages(value.report.wanted.writtenTo)} from people you wrote to would go.`,
                value.report.wanted.flagged > 0 &&
                  `${messages(value.report.wanted.flagged)} that you flagged would go.`,
              ]
                .filter(Boolean)
                .join(' ')}
            </p>
          )}
          {value.report.sample.length > 0 && <ChangedMessages list={value.report.sample} setup={setup} />}
          {value.report.total > value.report.sample.length && (
            <button className="btn self-start btn-ghost btn-sm" onClick={answer.more}>
              and {count(value.report.total - value.report.sample.length)} more …
            </button>
          )}
        </div>
      )}
    </section>
  );
}
