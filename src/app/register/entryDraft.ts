// An entry of the Register as it is being filled in, and the edits that would make it one.
import type { SetupEdit } from '../../core/line/setupEdit';
import type { Entry, EntryInput, EntryKind, Standing } from '../../core/senders/register';
import { kindWords } from './kinds';

/** What an entry is to be about, as it is typed and picked. */
export interface About {
  /** `sender` is an address or a domain, as the text says. */
  kind: Exclude<EntryKind, 'address' | 'domain'> | 'sender';
  typed: string;
  below: boolean;
  except: string[];
}

/** The kind of what was typed. */
export const entryKindOf = (kind: About['kind'], read: EntryInput): EntryKind =>
  kind === 'sender' ? (read.ok ? read.kind : 'address') : kind;

export interface EntryDraft {
  about: About;
  standing: Standing;
  why: string;
}

/** An entry as it begins: as it is, or as the address asks for. */
export function firstDraft(old: Entry | null, search: URLSearchParams): EntryDraft {
  const kind = old?.kind ?? 'address';
  return {
    about: {
      kind: kind === 'address' || kind === 'domain' ? 'sender' : kind,
      typed: old?.value ?? search.get('value') ?? '',
      below: old?.below !== false,
      except: old?.except ?? [],
    },
    standing: old?.standing ?? (search.get('standing') === 'safe' ? 'safe' : 'blocked'),
    why: old?.why ?? '',
  };
}

/** Where an entry comes from: the one that is changed, one with the same value, a message. */
interface Origin {
  old: Entry | null;
  twin: Entry | null;
  newId: string;
  from: string | null;
}

/** The entry as it is filled in; null where what was typed is none. */
export function entryOf(
  { about, standing, why }: EntryDraft,
  read: EntryInput,
  { old, twin, newId, from }: Origin,
): Entry | null {
  if (!read.ok) return null;
  const kind = entryKindOf(about.kind, read);
  return {
    // One value has one entry: an entry for a value that is there already takes its place.
    id: twin?.id ?? old?.id ?? newId,
    kind,
    value: read.value,
    ...(kind === 'domain' && !about.below ? { below: false } : {}),
    ...(about.except.length ? { except: about.except } : {}),
    standing,
    since: twin?.since ?? old?.since ?? 0,
    why: why.trim() || (from ? 'From a message' : 'By hand'),
  };
}

/** The edits that put an entry in the place of the one it was. */
export function editsOf(entry: Entry | null, old: Entry | null): SetupEdit[] {
  if (!entry) return [];
  const edits: SetupEdit[] = [{ list: 'register', id: entry.id, item: entry }];
  if (old && entry.id !== old.id) edits.unshift({ list: 'register', id: old.id, item: null });
  return edits;
}

/** Edits with the moment from which a new entry stands. */
export const stamped = (edits: readonly SetupEdit[], now: number): SetupEdit[] =>
  edits.map((edit) =>
    edit.list === 'register' && edit.item ? { ...edit, item: { ...edit.item, since: edit.item.since || now } } : edit,
  );

/** What an entry would be about, in words. `twin`: another one that it takes the place of. */
export function aboutWords(kind: EntryKind, value: string, { below }: About, twin: Entry | null): string {
  const what =
    kind === 'address'
      ? 'This one address.'
      : kind === 'domain'
        ? `Every address at ${value}${below ? ' and at what lies below it' : ', not below it'}.`
        : kindWords[kind].hint;
  if (!twin) return what;
  return `${what} It is in the Register already, as ${twin.standing === 'safe' ? 'Safe' : 'Blocked'}: this takes its place.`;
}
