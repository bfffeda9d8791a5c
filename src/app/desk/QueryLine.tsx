import { Search, X } from 'lucide-react';
import { useId, useRef, useState } from 'react';
import type { Setup } from '../../core/line/setup';
import { parseQuery } from '../../core/search/query';
import type { View } from '../../mailroom/viewsApi';
import { viewName } from '../ui/words';
import type { DeskView } from './useDeskView';

type Within = Extract<View, { kind: 'found' }>['within'];

/** What can be searched of where one is: the place or label itself. */
function placeOf(view: View): Within {
  if (view.kind === 'found') return view.within;
  if (view.kind === 'place') return { kind: 'place', place: view.place };
  return view.kind === 'label' ? { kind: 'label', label: view.label } : null;
}

/** The query line: what is typed is searched for in all places, or in the one where the person is. */
export function QueryLine({ desk, setup }: { desk: DeskView; setup: Setup }) {
  const { view } = desk.where;
  const asked = view.kind === 'found' ? view.query : '';
  const [text, setText] = useState(asked);
  const [trouble, setTrouble] = useState<{ error: string; at: number } | null>(null);
  /** Where the person was before they searched: there the line leads back, and that place can be searched alone. */
  const [before, setBefore] = useState<Within>(placeOf(view));
  const input = useRef<HTMLInputElement>(null);
  const id = useId();
  const there = placeOf(view);
  const [shown, setShown] = useState({ asked, there });
  if (shown.asked !== asked || JSON.stringify(shown.there) !== JSON.stringify(there)) {
    // Gone elsewhere, or back to another query: the line says what is shown.
    setShown({ asked, there });
    setText(asked);
    setTrouble(null);
    if (there) setBefore(there);
  }

  const search = (within: Within) => {
    const query = text.trim();
    if (query === '') return leave();
    const parsed = parseQuery(text);
    if (!parsed.ok) {
      const at = Math.min(parsed.at, text.length);
      setTrouble({ error: parsed.error, at });
      // What is typed next goes over what is wrong.
      input.current?.focus();
      input.current?.setSelectionRange(at, text.length);
      return;
    }
    setTrouble(null);
    desk.go({ view: { kind: 'found', query, within }, message: null, show: null });
    // The next keys are meant for what was found.
    input.current?.blur();
    document.querySelector<HTMLElement>('[role="grid"]')?.focus();
  };
  const leave = () => {
    setText('');
    setTrouble(null);
    if (view.kind === 'found')
      desk.go({ view: before ?? { kind: 'place', place: 'inbox' }, message: null, show: null });
  };
  const inside = view.kind === 'found' ? view.within : null;
  return (
    <search className="min-w-48 flex-1 basis-56 lg:max-w-xl">
      <form
        className="flex flex-wrap items-center gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          search(inside);
        }}
      >
        <label className={`input input-sm flex min-w-0 flex-1 items-center gap-1 ${trouble ? 'input-error' : ''}`}>
          <Search size={14} aria-hidden className="quiet shrink-0" />
          <input
            ref={input}
            data-key="query"
            className="min-w-0 font-mono text-sm !outline-none"
            aria-label="Query"
            aria-invalid={trouble !== null}
            aria-describedby={trouble ? id : undefined}
            placeholder="Words, or keys: from ann unseen"
            spellCheck={false}
            autoComplete="off"
            value={text}
            onChange={(event) => {
              setText(event.target.value);
              setTrouble(null);
            }}
            onKeyDown={(event) => {
              if (event.key !== 'Escape') return;
              event.preventDefault();
              input.current?.blur();
              leave();
            }}
          />
          {text !== '' && (
            <button
              type="button"
              className="btn btn-square btn-ghost btn-xs"
              aria-label="Leave the search"
              onClick={leave}
            >
              <X size={14} aria-hidden />
            </button>
          )}
        </label>
        {view.kind === 'found' && before && (
          <div className="join" role="group" aria-label="Where to search">
            {[null, before].map((within) => {
              const on = (inside === null) === (within === null);
              return (
                <button
                  key={within ? 'within' : 'everywhere'}
                  type="button"
                  className={`btn join-item btn-sm font-normal ${on ? 'btn-primary' : 'btn-outline border-base-300'}`}
                  aria-pressed={on}
                  onClick={() => search(within)}
                >
                  {within ? viewName(within, setup) : 'Everywhere'}
                </button>
              );
            })}
          </div>
        )}
      </form>
      {trouble && (
        <p id={id} role="alert" className="mt-1 text-sm text-error">
          {trouble.at < text.length
            ? `At “${text.slice(trouble.at, trouble.at + 12)}${text.length > trouble.at + 12 ? '…' : ''}”: `
            : 'At the end: '}
          {trouble.error}
        </p>
      )}
    </search>
  );
}
