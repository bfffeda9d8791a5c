import { ListFilter, Search, X } from 'lucide-react';
import { useId, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import type { Setup } from '../../core/line/setup';
import { parseQuery } from '../../core/search/query';
import { queryRemarks } from '../../core/search/remarks';
import type { Within } from '../../core/search/saved';
import { accepted } from '../../core/search/suggest';
import type { View } from '../../mailroom/border/views';
import { usePart } from '../ui/usePart';
import { viewName } from '../ui/naming';
import { useSuggestions } from './useSuggestions';
import { Form } from '../ui/Form';
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

interface Trouble {
  error: string;
  at: number;
}

/** What is typed, where it was asked, and what is wrong with it. */
function useQueryText({ where: { view }, go }: DeskView, input: React.RefObject<HTMLInputElement | null>) {
  const asked = view.kind === 'found' ? view.query : '';
  const [text, setText] = useState(asked);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  /** Where the person was before they searched: there the line leads back, and that place can be searched alone. */
  const [before, setBefore] = useState<Within | null>(placeOf(view));
  const there = placeOf(view);
  const [shown, setShown] = useState({ asked, there });
  if (shown.asked !== asked || JSON.stringify(shown.there) !== JSON.stringify(there)) {
    // Gone elsewhere, or back to another query: the line says what is shown.
    setShown({ asked, there });
    setText(asked);
    setTrouble(null);
    if (there) setBefore(there);
  }
  const put = (value: string) => {
    setText(value);
    setTrouble(null);
  };
  const leave = () => {
    put('');
    if (view.kind === 'found') go({ view: before ?? { kind: 'place', place: 'inbox' }, message: null, show: null });
  };
  const search = (within: Within | null) => {
    const query = text.trim();
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
    go({ view: { kind: 'found', query, within }, message: null, show: null });
    // The next keys are meant for what was found.
    input.current?.blur();
    document.querySelector<HTMLElement>('[role="grid"]')?.focus();
  };
  return { text, put, trouble, before, search, leave };
}

type QueryText = ReturnType<typeof useQueryText>;

/** The query line: what is typed is looked for everywhere, or where one is; as a line, or as a form of the same query. */
export function QueryLine({ desk, setup }: { desk: DeskView; setup: Setup }) {
  const { view } = desk.where;
  const [formOpen, setFormOpen] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const id = useId();
  const query = useQueryText(desk, input);
  const leave = () => {
    setFormOpen(false);
    query.leave();
  };
  const search = (within: Within | null) => (query.text.trim() === '' ? leave() : query.search(within));
  const QueryForm = usePart(formPart, formOpen)?.QueryForm;
  const SaveSearch = usePart(savePart, view.kind === 'found')?.SaveSearch;
  const inside = view.kind === 'found' ? view.within : null;
  // Of what was asked, not of what is being typed.
  const [remark] = view.kind === 'found' ? queryRemarks(view.query, setup.labels) : [];
  // What was found by is read in full, and a form needs the width.
  const wide = view.kind === 'found' || formOpen;
  return (
    <search className={wide ? 'order-last basis-full' : 'min-w-48 flex-1 basis-56'}>
      <div className="flex flex-wrap items-center gap-1">
        <Form className="flex min-w-0 flex-1 flex-wrap items-center gap-1" onSubmit={() => search(inside)}>
          <QueryInput
            id={id}
            input={input}
            query={query}
            setup={setup}
            formOpen={formOpen}
            onForm={() => setFormOpen(!formOpen)}
            onLeave={leave}
          />
          {view.kind === 'found' && query.before && (
            <WhereToSearch inside={inside} before={query.before} setup={setup} onSearch={search} />
          )}
        </Form>
        {view.kind === 'found' && SaveSearch && <SaveSearch view={view} setup={setup} />}
      </div>
      {query.trouble && (
        <p id={id} role="alert" className="mt-1 text-sm text-error">
          {troubleWords(query.text, query.trouble)}
        </p>
      )}
      {!query.trouble && remark && (
        <p role="status" className="mt-1 border-l-4 border-accent bg-base-200 px-3 py-1 text-sm">
          {remark.says}
        </p>
      )}
      {formOpen && QueryForm && (
        <QueryForm
          text={query.text}
          setup={setup}
          onText={query.put}
          onSearch={() => search(inside)}
          onClose={() => setFormOpen(false)}
        />
      )}
    </search>
  );
}

interface WhereToSearchProps {
  inside: Within | null;
  before: Within;
  setup: Setup;
  onSearch: (within: Within | null) => void;
}

/** Everywhere, or where the person was. */
function WhereToSearch({ inside, before, setup, onSearch }: WhereToSearchProps) {
  return (
    <div className="join" role="group" aria-label="Where to search">
      {[null, before].map((within) => {
        const on = (inside === null) === (within === null);
        return (
          <button
            key={within ? 'within' : 'everywhere'}
            type="button"
            className={`btn join-item btn-sm font-normal ${on ? 'btn-primary' : 'btn-outline border-base-300'}`}
            aria-pressed={on}
            onClick={() => onSearch(within)}
          >
            {within ? viewName(within, setup) : 'Everywhere'}
          </button>
        );
      })}
    </div>
  );
}

/** The suggestions for what is being typed: which of them is chosen, and the keys that choose. */
function useChoosing(
  { text, put }: QueryText,
  input: React.RefObject<HTMLInputElement | null>,
  setup: Setup,
  onLeave: () => void,
) {
  const [caret, setCaret] = useState(0);
  const [suggesting, setSuggesting] = useState(false);
  /** The suggestion that Enter puts in; -1 for none: Enter searches. */
  const [chosen, setChosen] = useState(-1);
  const { expected, list } = useSuggestions(text, caret, setup, suggesting);
  const typed = (value: string, at: number) => {
    put(value);
    setCaret(at);
    setChosen(-1);
    setSuggesting(true);
  };
  const accept = (at: number) => {
    const next = accepted(text, expected, list[at].puts);
    // At once: the next key is meant for what stands behind what was put in.
    flushSync(() => typed(next.text, next.caret));
    input.current?.focus();
    input.current?.setSelectionRange(next.caret, next.caret);
  };
  const close = () => {
    setSuggesting(false);
    setChosen(-1);
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
    } else if (key === 'Enter') {
      if (chosen < 0 || chosen >= list.length) return setSuggesting(false);
      event.preventDefault();
      accept(chosen);
    } else if (key === 'Escape') {
      event.preventDefault();
      if (suggesting && chosen >= 0) return close();
      setSuggesting(false);
      input.current?.blur();
      onLeave();
    }
  };
  return { list, chosen, open: suggesting && list.length > 0, typed, accept, close, press };
}

interface QueryInputProps {
  id: string;
  input: React.RefObject<HTMLInputElement | null>;
  query: QueryText;
  setup: Setup;
  formOpen: boolean;
  onForm: () => void;
  onLeave: () => void;
}

/** The line itself, with what it suggests. */
function QueryInput({ id, input, query, setup, formOpen, onForm, onLeave }: QueryInputProps) {
  const { text, trouble } = query;
  const choosing = useChoosing(query, input, setup, onLeave);
  const { chosen, open, typed } = choosing;
  return (
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
          onChange={(event) => typed(event.target.value, event.target.selectionStart ?? event.target.value.length)}
          onFocus={() => text === '' && typed('', 0)}
          onBlur={choosing.close}
          onKeyDown={choosing.press}
        />
        {text !== '' && (
          <button
            type="button"
            className="btn btn-square btn-ghost btn-xs"
            aria-label="Leave the search"
            onClick={onLeave}
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
          onClick={onForm}
        >
          <ListFilter size={14} aria-hidden />
        </button>
      </label>
      <SuggestionList id={id} {...choosing} />
    </div>
  );
}

type Choosing = Pick<ReturnType<typeof useChoosing>, 'list' | 'chosen' | 'open' | 'accept'>;

function SuggestionList({ id, list, chosen, open, accept }: Choosing & { id: string }) {
  return (
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
  );
}
