import { ChevronDown, ChevronUp, ListChecks, Plus } from 'lucide-react';
import { useId, useLayoutEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Setup } from '../../core/line/setup';
import { lastingWords, missingTarget, mostDigits, stampWords, type Stamp } from '../../core/stamps/stamp';
import { actionWords } from '../../core/effects/effects';
import { andWords, messages } from '../../core/text/sentences';
import { useRecentActs } from './recentActs';
import { StampMark } from './stampIcon';
import { whyNotStamp } from './usePress';

interface StampRowProps {
  setup: Setup;
  /** What a stamp would be carried out on, and how many conversations that is. */
  ids: readonly number[];
  conversations: number;
  onPress: (stamp: Stamp) => void;
  /** Looks at what it would do first. */
  onLook: (stamp: Stamp) => void;
}

/** What a stamp does, to how many, and why it can’t: for whoever rests on it. */
function hintOf(stamp: Stamp, setup: Setup, ids: readonly number[], conversations: number): string {
  const whyNot = whyNotStamp(stamp, ids, conversations);
  const missing = missingTarget(stamp, setup);
  const does = `${stampWords(stamp, setup)[0].toUpperCase()}${stampWords(stamp, setup).slice(1)}.`;
  const asks = missing ? ' What is not chosen yet is asked first.' : '';
  return `${does}${asks} ${whyNot ?? `On ${messages(ids.length)}.`}`;
}

interface StampButtonProps {
  stamp: Stamp;
  digit: number | null;
  /** It can’t be carried out now. */
  whyNot: boolean;
  /** The id of what says all that it does. */
  hint: string;
  onPress: () => void;
  onShow: () => void;
}

function StampButton({ stamp, digit, whyNot, hint, onPress, onShow }: StampButtonProps) {
  const lasting = lastingWords(stamp);
  return (
    <button
      className={`btn h-8 min-h-0 gap-1.5 rounded-none border-2 border-dashed border-base-content/40 bg-base-100 px-2 text-sm font-normal max-md:h-11 ${stamp.ink ? `stamped ink-${stamp.ink}` : ''} ${whyNot ? '!text-base-content/75' : ''}`}
      aria-disabled={whyNot}
      aria-keyshortcuts={digit === null ? undefined : String(digit)}
      aria-describedby={hint}
      onClick={onPress}
      onPointerEnter={onShow}
      onFocus={onShow}
    >
      {digit !== null && <kbd className="key">{digit}</kbd>}
      <StampMark icon={stamp.icon} />
      <span>{stamp.name}</span>
      {lasting && <span className="text-xs text-error">{lasting}</span>}
    </button>
  );
}

/** What each stamp does, for whoever listens. */
function Hints({
  setup,
  ids,
  conversations,
  prefix,
}: Pick<StampRowProps, 'setup' | 'ids' | 'conversations'> & { prefix: string }) {
  return setup.stamps.map((stamp) => (
    <span key={stamp.id} id={`${prefix}-${stamp.id}`} className="sr-only">
      {hintOf(stamp, setup, ids, conversations)}
    </span>
  ));
}

/** The stamps below the acts, always in the same spot: one row, or all of them. */
export function StampRow({ setup, ids, conversations, onPress, onLook }: StampRowProps) {
  const { stamps } = setup;
  const [all, setAll] = useState(false);
  const [more, setMore] = useState(false);
  const [shown, setShown] = useState<Stamp | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const hint = useId();
  const recent = useRecentActs((s) => s.acts);
  useLayoutEffect(() => {
    const element = list.current;
    if (!element) return;
    const look = () => setMore(element.scrollHeight > element.clientHeight + 4 || all);
    look();
    const watcher = new ResizeObserver(look);
    watcher.observe(element);
    return () => watcher.disconnect();
  }, [stamps, all]);
  const its = shown && stamps.find(({ id }) => id === shown.id);
  return (
    <div
      // On a telephone they stand there only where there is something to press them on.
      className={`relative flex w-full items-start gap-1 border-t border-base-300 pt-1 ${ids.length === 0 ? 'max-md:hidden' : ''}`}
      onPointerLeave={() => setShown(null)}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) setShown(null);
      }}
    >
      {its && (
        // For the eye; who listens hears it as the description of the button.
        <p
          aria-hidden
          className="absolute bottom-full left-0 z-20 mb-1 max-w-xl rounded border border-base-300 bg-base-100 px-3 py-1.5 text-sm shadow-lg"
        >
          <strong>{its.name}</strong>
          {lastingWords(its) && <span className="text-error"> {lastingWords(its)}</span>}:{' '}
          {hintOf(its, setup, ids, conversations)}
        </p>
      )}
      <div
        ref={list}
        role="toolbar"
        aria-label="Stamps"
        className={`flex min-w-0 flex-1 flex-wrap items-center gap-1 ${all ? '' : 'max-h-8 overflow-hidden max-md:max-h-11'}`}
      >
        {stamps.map((stamp, n) => {
          const whyNot = whyNotStamp(stamp, ids, conversations);
          return (
            <StampButton
              key={stamp.id}
              stamp={stamp}
              digit={n < mostDigits ? n + 1 : null}
              whyNot={whyNot !== null}
              hint={`${hint}-${stamp.id}`}
              onPress={() => onPress(stamp)}
              onShow={() => setShown(stamp)}
            />
          );
        })}
        {stamps.length === 0 && (
          <Link className="btn h-8 min-h-0 gap-1 px-2 font-normal btn-ghost btn-sm" to="/stamps">
            <Plus size={14} aria-hidden /> Stamps: several acts by one press
          </Link>
        )}
      </div>
      <Hints setup={setup} ids={ids} conversations={conversations} prefix={hint} />
      {its && (
        <button
          className="btn h-8 min-h-0 px-2 font-normal btn-ghost btn-sm max-md:hidden"
          onClick={() => onLook(its)}
          onPointerEnter={() => setShown(its)}
          title={`What “${its.name}” would do, before it does (0, then its digit)`}
        >
          <ListChecks size={14} aria-hidden /> Look first
        </button>
      )}
      {recent.length > 1 && (
        <Link
          className="btn h-8 min-h-0 px-2 font-normal btn-ghost btn-sm max-md:hidden"
          to="/stamps/new?from=recent"
          title={`You just did: ${andWords(recent.map((act) => actionWords(act, setup)))}`}
        >
          <Plus size={14} aria-hidden /> Make a stamp of this
        </Link>
      )}
      {more && (
        <button
          className="btn h-8 min-h-0 px-2 font-normal btn-ghost btn-sm max-md:h-11"
          aria-expanded={all}
          onClick={() => setAll(!all)}
        >
          {all ? <ChevronDown size={14} aria-hidden /> : <ChevronUp size={14} aria-hidden />}
          {all ? 'One row' : `All ${stamps.length}`}
        </button>
      )}
    </div>
  );
}
