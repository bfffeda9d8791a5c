import { namesApart } from '../../core/mail/nesting';
import { useId, useState, type ReactNode } from 'react';
import type { Setup } from '../../core/line/setup';
import { emptyForm, formOf, formTexts, queryOf, type SearchForm } from '../../core/search/form';
import { Form } from '../ui/Form';
import { joined, parseQuery, queryText, quoted, tokens } from '../../core/search/query';

const textNames: Record<(typeof formTexts)[number], string> = {
  from: 'From',
  to: 'To',
  subject: 'Subject',
  body: 'In the text',
};

const states = [
  ['seen', 'Read', 'read', 'not read'],
  ['flagged', 'Flag', 'flagged', 'not flagged'],
  ['answered', 'Answered', 'answered', 'not answered'],
] as const;

const isoDay = (day: number | undefined): string => (day === undefined ? '' : new Date(day).toISOString().slice(0, 10));

function Field({ name, children }: { name: string; children: ReactNode }) {
  return (
    <label className="flex min-w-0 flex-col text-sm">
      {name}
      {children}
    </label>
  );
}

/** What the fields show: the form, and the texts of the two fields that are typed as a part of a query. */
interface Shown {
  form: SearchForm;
  words: string;
  also: string;
}

const shownOf = (form: SearchForm): Shown => ({
  form,
  words: form.words.map((word) => quoted(word)).join(' '),
  also: form.others.length ? queryText(joined(form.others)) : '',
});

interface QueryFormProps {
  /** The query as the line has it. */
  text: string;
  setup: Setup;
  onText: (text: string) => void;
  onSearch: () => void;
  onClose: () => void;
}

const dayNames = [
  ['since', 'On this day or later'],
  ['before', 'Before this day'],
] as const;

const sizeNames = [
  ['larger', 'Larger than, in KB'],
  ['smaller', 'Smaller than, in KB'],
] as const;

/** A part of the form: what it shows, and what it changes of it. */
interface PartProps {
  form: SearchForm;
  set: (some: Partial<SearchForm>) => void;
}

function LabelField({ form, set, labels }: PartProps & { labels: Setup['labels'] }) {
  const apart = namesApart(labels);
  return (
    <Field name="Label">
      <select
        className="select w-full select-sm"
        value={form.label ?? ''}
        onChange={(event) => set({ label: event.target.value || null })}
      >
        <option value="">any or none</option>
        {form.label !== null && !labels.some(({ id: label }) => apart(label) === form.label) && (
          <option value={form.label}>{form.label}</option>
        )}
        {labels.map(({ id: label }) => (
          <option key={label} value={apart(label)}>
            {apart(label)}
          </option>
        ))}
      </select>
    </Field>
  );
}

const DayFields = ({ form, set }: PartProps) =>
  dayNames.map(([key, name]) => (
    <Field key={key} name={name}>
      <input
        type="date"
        className="input input-sm w-full"
        value={isoDay(form.days[key])}
        onChange={(event) =>
          set({
            days: { ...form.days, [key]: event.target.value ? Date.parse(event.target.value) : undefined },
          })
        }
      />
    </Field>
  ));

const SizeFields = ({ form, set }: PartProps) =>
  sizeNames.map(([key, name]) => {
    const bytes = form.sizes[key];
    return (
      <Field key={key} name={name}>
        <input
          type="number"
          min={0}
          max={999_999_999}
          step="any"
          className="input input-sm w-full"
          value={bytes === undefined ? '' : bytes / 1_000}
          onChange={(event) => {
            const typed = event.target.value === '' ? NaN : Number(event.target.value);
            const next = Number.isFinite(typed) && typed >= 0 ? Math.round(typed * 1_000) : undefined;
            set({ sizes: { ...form.sizes, [key]: next } });
          }}
        />
      </Field>
    );
  });

const StateFields = ({ form, set }: PartProps) =>
  states.map(([key, name, yes, no]) => (
    <Field key={key} name={name}>
      <select
        className="select w-full select-sm"
        value={form.states[key] === undefined ? '' : form.states[key] ? 'yes' : 'no'}
        onChange={(event) => {
          const { value } = event.target;
          set({ states: { ...form.states, [key]: value === '' ? undefined : value === 'yes' } });
        }}
      >
        <option value="">either</option>
        <option value="yes">{yes}</option>
        <option value="no">{no}</option>
      </select>
    </Field>
  ));

/** What has no field of its own, as a part of a query. */
function AlsoField({ also, onChange }: { also: string; onChange: (typed: string) => void }) {
  const id = useId();
  const alsoRead = also.trim() === '' ? null : parseQuery(also);
  return (
    <label className="flex min-w-0 flex-col text-sm sm:col-span-3 lg:col-span-2">
      And whatever else the line asks for
      <input
        className={`input input-sm w-full font-mono ${alsoRead?.ok === false ? 'input-error' : ''}`}
        value={also}
        placeholder="not subject fuel, or from ann from bob …"
        spellCheck={false}
        aria-invalid={alsoRead?.ok === false}
        aria-describedby={alsoRead?.ok === false ? id : undefined}
        onChange={(event) => onChange(event.target.value)}
      />
      {alsoRead?.ok === false && (
        <span id={id} className="text-error">
          {alsoRead.error}
        </span>
      )}
    </label>
  );
}

/** The query as a form: each field writes the line, and the line fills each field. */
export function QueryForm({ text, setup, onText, onSearch, onClose }: QueryFormProps) {
  const parsed = text.trim() === '' ? null : parseQuery(text);
  const [shown, setShown] = useState<Shown>(() => shownOf(parsed?.ok ? formOf(parsed.query) : emptyForm()));
  /** The line as the form has last written or read it. */
  const [held, setHeld] = useState(text);
  if (held !== text) {
    setHeld(text);
    if (parsed === null) setShown(shownOf(emptyForm()));
    else if (parsed.ok) setShown(shownOf(formOf(parsed.query)));
  }
  const { form, words, also } = shown;
  const change = (next: Shown) => {
    setShown(next);
    const query = queryOf(next.form);
    const written = query.key === 'all' ? '' : queryText(query);
    setHeld(written);
    onText(written);
  };
  const set = (some: Partial<SearchForm>) => change({ ...shown, form: { ...form, ...some } });
  const setWords = (typed: string) =>
    change({ ...shown, words: typed, form: { ...form, words: tokens(typed, true).map(({ text: word }) => word) } });
  const setAlso = (typed: string) => {
    const read = typed.trim() === '' ? null : parseQuery(typed);
    if (read && !read.ok) setShown({ ...shown, also: typed });
    else change({ ...shown, also: typed, form: { ...form, others: read ? [read.query] : [] } });
  };
  const wrong = parsed && !parsed.ok ? parsed : null;
  return (
    <Form
      aria-label="Form of the query"
      className="mt-2 flex flex-col gap-2 rounded border border-base-300 bg-base-200 p-3"
      onSubmit={() => onSearch()}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        // The message behind it stays open.
        event.preventDefault();
        onClose();
      }}
    >
      {wrong && (
        <p className="text-sm">
          The line can’t be read as it is ({wrong.error}) What you enter here is written in its place.
        </p>
      )}
      <div className="grid grid-cols-1 gap-2 sm:grid-cols-3 lg:grid-cols-5">
        <Field name="Words, anywhere">
          <input
            className="input input-sm w-full"
            value={words}
            onChange={(event) => setWords(event.target.value)}
            spellCheck={false}
          />
        </Field>
        {formTexts.map((key) => (
          <Field key={key} name={textNames[key]}>
            <input
              className="input input-sm w-full"
              value={form.texts[key] ?? ''}
              spellCheck={false}
              onChange={(event) => set({ texts: { ...form.texts, [key]: event.target.value || undefined } })}
            />
          </Field>
        ))}
        <LabelField form={form} set={set} labels={setup.labels} />
        <DayFields form={form} set={set} />
        <SizeFields form={form} set={set} />
        <StateFields form={form} set={set} />
        <AlsoField also={also} onChange={setAlso} />
      </div>
      <div className="flex gap-2">
        <button className="btn btn-primary btn-sm">Search</button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={() => change(shownOf(emptyForm()))}>
          Empty all fields
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onClose}>
          Close the form
        </button>
      </div>
    </Form>
  );
}
