import { Fragment, type ReactNode } from 'react';
import { effectOf } from '../../core/effects/effects';
import type { Contradiction, Unreached } from '../../core/rules/reach';

interface OdditiesProps {
  /** Why the rule never does anything; null where it can. */
  never: Unreached | null;
  /** Upper rules that contradict it, and lower ones that it contradicts. */
  under: readonly Contradiction[];
  over?: readonly Contradiction[];
  /** Rules that would never be reached any more because of it. */
  shadows?: readonly string[];
  /** A rule by its name. */
  naming: (id: string) => ReactNode;
}

const listed = (ids: readonly string[], naming: (id: string) => ReactNode) =>
  ids.map((id, i) => (
    <Fragment key={id}>
      {i > 0 && ' and '}
      {naming(id)}
    </Fragment>
  ));

/** What is odd about a rule: it is never reached, takes all from another, or two contradict. */
export function Oddities({ never, under, over = [], shadows = [], naming }: OdditiesProps) {
  if (!never && under.length + over.length + shadows.length === 0) return null;
  return (
    <div className="mt-1 flex flex-col border-l-4 border-accent bg-base-200 px-3 py-1 text-sm" role="status">
      {never?.why === 'impossible' && <p>Its conditions exclude each other: it can never match.</p>}
      {never?.why === 'shadowed' && (
        <p>
          Never reached: all that it matches is taken before, by {listed(never.by, naming)}. Move it up, or take it off.
        </p>
      )}
      {under.map(({ first, about }) => (
        <p key={`under ${first} ${about}`}>
          Contradicts {naming(first)}, which {effectOf(about).clash?.does} the same mail differently: the upper one has
          its way.
        </p>
      ))}
      {over.map(({ second, about }) => (
        <p key={`over ${second} ${about}`}>
          Contradicts {naming(second)}, which {effectOf(about).clash?.does} the same mail differently: this one has its
          way.
        </p>
      ))}
      {shadows.length > 0 && (
        <p>It would take all that {listed(shadows, naming)} could match: never reached any more.</p>
      )}
    </div>
  );
}
