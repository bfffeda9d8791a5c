// The query as a form: fields for the keys that people use most, and whatever else it asks for beside them. Line and form
// are two views of one query: each says all that the other says.
import { joined, type Query, type stateKeys } from './query';

/** Keys with a text that have a field of their own. */
export const formTexts = ['from', 'to', 'subject', 'body'] as const;
/** States that have a field of their own. */
export const formStates = ['seen', 'flagged', 'answered'] as const satisfies readonly (typeof stateKeys)[number][];
const formDays = ['since', 'before'] as const;
const formSizes = ['larger', 'smaller'] as const;

/** What each field says; all of it must hold. Absent is what is not asked for. */
export interface SearchForm {
  /** Looked for everywhere a person would; each by itself, in any order. */
  words: string[];
  texts: Partial<Record<(typeof formTexts)[number], string>>;
  /** The name of a label. */
  label: string | null;
  /** Milliseconds since 1970 of the day’s first moment in UTC. */
  days: Partial<Record<(typeof formDays)[number], number>>;
  /** In bytes. */
  sizes: Partial<Record<(typeof formSizes)[number], number>>;
  states: Partial<Record<(typeof formStates)[number], boolean>>;
  /** What has no field: other keys, the second of a kind, and what stands under OR or NOT. */
  others: Query[];
}

const has = <K extends string>(keys: readonly K[], key: string): key is K => (keys as readonly string[]).includes(key);

/** Puts one key that must hold into its field; false where it has none, or the field is taken. */
function fill(form: SearchForm, part: Query): boolean {
  if (part.key === 'words' && part.text !== '') form.words.push(part.text);
  else if (part.key === 'keyword' && form.label === null && part.label !== '') form.label = part.label;
  else if ('text' in part && has(formTexts, part.key) && part.text !== '' && form.texts[part.key] === undefined)
    form.texts[part.key] = part.text;
  else if ('day' in part && has(formDays, part.key) && form.days[part.key] === undefined)
    form.days[part.key] = part.day;
  else if ('bytes' in part && form.sizes[part.key] === undefined) form.sizes[part.key] = part.bytes;
  else if ('value' in part && has(formStates, part.key) && form.states[part.key] === undefined)
    form.states[part.key] = part.value;
  else return part.key === 'all';
  return true;
}

/** A form in which nothing is asked for. */
export const emptyForm = (): SearchForm => ({
  words: [],
  texts: {},
  label: null,
  days: {},
  sizes: {},
  states: {},
  others: [],
});

/** The parts of a query that must all hold; parentheses within them make no difference. */
const partsOf = (query: Query): Query[] => (query.key === 'and' ? query.of.flatMap(partsOf) : [query]);

/** A query in the fields of the form. */
export function formOf(query: Query): SearchForm {
  const form = emptyForm();
  for (const part of partsOf(query)) if (!fill(form, part)) form.others.push(part);
  return form;
}

/** What a form asks for; `all` where that is nothing. The order is the form’s own. */
export function queryOf(form: SearchForm): Query {
  const of: Query[] = form.words.map((text) => ({ key: 'words', text }));
  for (const key of formTexts) if (form.texts[key]) of.push({ key, text: form.texts[key] });
  if (form.label) of.push({ key: 'keyword', label: form.label });
  for (const key of formDays) {
    const day = form.days[key];
    if (day !== undefined) of.push({ key, day });
  }
  for (const key of formSizes) {
    const bytes = form.sizes[key];
    if (bytes !== undefined) of.push({ key, bytes });
  }
  for (const key of formStates) {
    const value = form.states[key];
    if (value !== undefined) of.push({ key, value });
  }
  return joined([...of, ...form.others]);
}
