import { ListFilter, Search, X } from 'lucide-react';
import { useId, useRef, useState } from 'react';
import type { Setup } from '../../core/line/setup';
import { parseQuery } from '../../core/search/query';
import type { Within } from '../../core/search/saved';
import { accepted } from '../../core/search/suggest';
import type { View } from '../../mailroom/border/views';
import { usePart } from '../ui/usePart';
import { viewName } from '../ui/naming';
import { useSuggestions } from './useSuggestions';
import type { DeskView } from './useDeskView';

// What the first rows don't need comes after them.
const formPart = () => import('./QueryForm');
const savePart = () => import('./SaveSearch');

/** What can be searched of where one is: the place or label itself. */
function placeOf(view: View): Within | null {
  if (view.kind === 'found') return view.within;
  if (view.kind === 'place') return { kind: 'place', place: view.place };
  return view.kind === 'label' ? { kind: 'label', label: view.label } : null;
}

/** Where in a query something is wrong, in words. */
function troubleWords(text: string, { error, at }: { error: string; at: number }): string {
  const rest = text.slice(at, at + 12);
  return `${at < text.length ? `At “${rest}${text.length > at + 12 ? '…' : ''}”: ` : 'At the end: '}${error}`;
}

/** The query line: what is typed is looked for everywhere, or where one is; as a line, or as a form of the same query. */
export function QueryLine({ desk, setup }: { desk: DeskView; setup: Setup }) {
  const { view } = desk.where;
  const asked = view.kind === 'found' ? view.query : '';
  const [text, setText] = useState(asked);
  const [caret, setCaret] = useState(0);
  const [trouble, setTrouble] = useState<{ error: string; at: number } | null>(null);
  /** Where the person was before they searched: there the line leads back, and that place can be searched alone. */
  const [before, setBefore] = useState<Within | null>(placeOf(view));
  const [formOpen, setFormOpen] = useState(false);
  const [suggesting, setSuggesting] = useState(false);
  /** The suggestion that Enter puts in; -1 for none: Enter searches. */
  const [chosen, setChosen] = useState(-1);
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
  const { expected, list } = useSuggestions(text, caret, setup, suggesting);

  const search = (within: Within | null) => {
    const query = text.trim();
    setSuggesting(false);
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
    setFormOpen(false);
    if (view.kind === 'found')
      desk.go({ view: before ?? { kind: 'place', place: 'inbox' }, message: null, show: null });
  };
  const typed = (value: string, at: number) => {
    setText(value);
    setCaret(at);
    setTrouble(null);
    setChosen(-1);
    setSuggesting(true);
  };
  const accept = (at: number) => {
    const put = accepted(text, expected, list[at].puts);
    typed(put.text, put.caret);
    input.current?.focus();
    // The value is set at the next drawing, and the caret goes behind what was put in only then.
    requestAnimationFrame(() => input.current?.setSelectionRange(put.caret, put.caret));
  };
  const press = (event: React.KeyboardEvent) => {
    const { key } = event;
    if (key === 'ArrowDown' || key === 'ArrowUp') {
      event.preventDefault();
      if (!suggesting) {
        setCaret(input.current?.selectionStart ?? text.length);
        setSuggesting(true);
      } else if (list.length)
        setChosen((chosen + (key === 'ArrowDown' ? 1 : list.length + (chosen < 0 ? 0 : -1))) % list.length);
    } else if (key === 'Enter' && chosen >= 0 && chosen < list.length) {
      event.preventDefault();
      accept(chosen);
    } else if (key === 'Escape') {
      event.preventDefault();
      if (suggesting && chosen >= 0) {
        setSuggesting(false);
        setChosen(-1);
        return;
      }
      setSuggesting(false);
      input.current?.blur();
      leave();
    }
  };
  const QueryForm = usePart(formPart, formOpen)?.QueryForm;
  const SaveSearch = usePart(savePart, view.kind === 'found')?.SaveSearch;
  const inside = view.kind === 'found' ? view.within : null;
  const open = suggesting && list.length > 0;
  // What was found by is read in full, and a form needs the width.
  const wide = view.kind === 'found' || formOpen;
  return (
    <search className={wide ? 'order-last basis-full' : 'min-w-48 flex-1 basis-56'}>
      <div className="flex flex-wrap items-center gap-1">
        <form
          className="flex min-w-0 flex-1 flex-wrap items-center gap-1"
          onSubmit={(event) => {
            event.preventDefault();
            search(inside);
          }}
        >
          <div className="relative flex min-w-0 flex-1">
            <label className={`input input-sm flex min-w-0 flex-1 items-center gap-1 ${trouble ? 'input-error' : ''}`}>
              <Search size={14} aria-hidden className="quiet shrink-0" />
              <input
                ref={input}
                role="combobox"
                data-key="query"
                className="min-w-0 font-mono text-sm !outline-none"
                aria-label="Query"
                aria-expanded={open}
                aria-controls={`${id}-list`}
                aria-autocomplete="list"
                aria-activedescendant={open && chosen >= 0 ? `${id}-${chosen}` : undefined}
                aria-invalid={trouble !== null}
                aria-describedby={trouble ? id : undefined}
                placeholder="Words, or keys: from ann unseen"
                spellCheck={false}
                autoComplete="off"
                value={text}
                onChange={(event) =>
                  typed(event.target.value, event.target.selectionStart ?? event.target.value.length)
                }
                onFocus={() => text === '' && typed('', 0)}
                onBlur={() => {
                  setSuggesting(false);
                  setChosen(-1);
                }}
                onKeyDown={press}
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
              <button
                type="button"
                className="btn btn-square btn-ghost btn-xs"
                aria-expanded={formOpen}
                aria-label="Form of the query"
                title="The same query as a form (Q)"
                data-key="query-form"
                onClick={() => setFormOpen(!formOpen)}
              >
                <ListFilter size={14} aria-hidden />
              </button>
            </label>
            <ul
              id={`${id}-list`}
              role="listbox"
              aria-label="Suggestions"
              className={`absolute top-full left-0 z-30 mt-1 max-h-80 w-full overflow-y-auto rounded border border-base-300 bg-base-100 py-1 text-sm shadow ${open ? '' : 'hidden'}`}
            >
              {list.map(({ puts, means }, at) => (
                <li
                  key={`${puts} ${means}`}
                  id={`${id}-${at}`}
                  role="option"
                  aria-selected={at === chosen}
                  className={`flex cursor-pointer gap-3 px-3 py-1 hover:bg-base-200 ${at === chosen ? 'bg-base-300' : ''}`}
                  // Before the line loses the focus, and with it the list.
                  onMouseDown={(event) => {
                    event.preventDefault();
                    accept(at);
                  }}
                >
                  <span className="max-w-[70%] min-w-0 truncate font-mono">{puts}</span>
                  <span className="quiet ml-auto min-w-0 truncate">{means}</span>
                </li>
              ))}
            </ul>
          </div>
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
        {view.kind === 'found' && SaveSearch && <SaveSearch view={view} setup={setup} />}
      </div>
      {trouble && (
        <p id={id} role="alert" className="mt-1 text-sm text-error">
          {troubleWords(text, trouble)}
        </p>
      )}
      {formOpen && QueryForm && (
        <QueryForm
          text={text}
          setup={setup}
          onText={(value) => {
            setText(value);
            setTrouble(null);
          }}
          onSearch={() => search(inside)}
          onClose={() => setFormOpen(false)}
        />
      )}
    </search>
  );
}
