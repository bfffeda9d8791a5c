import { mailroom } from '../../mailroom/client';
import type { Judgement } from '../../mailroom/border/junk';
import { useMailbox } from '../state/overview';
import { useAnswer } from '../ui/useAnswer';

/** A score in words: `Score 93 of 100`. */
export const scoreWords = (score: number): string => `Score ${Math.floor(score)} of 100`;

/** The evidence as two lists: what speaks for junk, and what against. */
export function EvidenceLists({ judgement }: { judgement: Judgement }) {
  const sides = [
    ['For junk', judgement.evidence.filter((one) => one.weight > 0)],
    ['Against', judgement.evidence.filter((one) => one.weight < 0)],
  ] as const;
  if (judgement.evidence.length === 0) return <p className="quiet">Nothing it says is known to the filter yet.</p>;
  return (
    <div className="grid gap-x-6 gap-y-2 sm:grid-cols-2">
      {sides.map(([word, list]) => (
        <div key={word} className="min-w-0">
          <p className="text-sm font-semibold">{word}</p>
          {list.length === 0 && <p className="quiet text-sm">Nothing.</p>}
          <ul className="text-sm" aria-label={word}>
            {list.map(({ says, weight }) => (
              <li key={says} className="flex items-baseline gap-2">
                <span
                  aria-hidden
                  className={`h-2 shrink-0 rounded ${weight > 0 ? 'bg-error' : 'bg-success'}`}
                  style={{ width: `${Math.max(3, Math.min(48, Math.abs(weight) * 160))}px` }}
                />
                <span className="min-w-0 [overflow-wrap:anywhere]">{says}</span>
              </li>
            ))}
          </ul>
        </div>
      ))}
    </div>
  );
}

/** What the junk filter makes of a message now, and why. */
export function Evidence({ id }: { id: number }) {
  const revision = useMailbox((s) => s.revision);
  const { value } = useAnswer(() => mailroom.judgement(id), `${id} ${revision}`);
  if (!value) return null;
  const line = value.line === null ? 'the filter is off' : `your line is at ${value.line}`;
  return (
    <section aria-label="Evidence" className="mb-2 ml-2 border-t border-base-300 pt-2">
      <p className="mb-1">
        <strong>{scoreWords(value.score)}</strong> by the junk filter as it is now; {line}.
        {value.marked && ` You marked it as ${value.marked === 'junk' ? 'junk' : 'not junk'}.`}
      </p>
      <EvidenceLists judgement={value} />
    </section>
  );
}
