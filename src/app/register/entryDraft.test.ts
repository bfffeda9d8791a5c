import { parseEntry, type Entry } from '../../core/senders/register';
import { aboutWords, editsOf, entryOf, firstDraft, stamped, type EntryDraft } from './entryDraft';

const search = (text = '') => new URLSearchParams(text);
const origin = { old: null, twin: null, newId: 'new', from: null };
const old: Entry = { id: 'e', kind: 'domain', value: 'harbour.example', standing: 'safe', since: 5, why: 'Friends' };
const draft = (part: Partial<EntryDraft> = {}): EntryDraft => ({ ...firstDraft(null, search()), ...part });

test('an entry begins as the address asks for, or as it is', () => {
  expect(firstDraft(null, search('value=ana@x.test&standing=safe'))).toMatchObject({
    about: { kind: 'sender', typed: 'ana@x.test', below: true },
    standing: 'safe',
  });
  expect(firstDraft(null, search('standing=nonsense')).standing).toBe('blocked');
  expect(firstDraft(old, search())).toMatchObject({ about: { kind: 'sender', typed: old.value }, why: 'Friends' });
});

test('what was typed becomes an entry; what is none becomes nothing', () => {
  expect(entryOf(draft(), parseEntry('@@'), origin)).toBeNull();
  expect(entryOf(draft(), parseEntry('ana@x.test'), origin)).toEqual({
    id: 'new',
    kind: 'address',
    value: 'ana@x.test',
    standing: 'blocked',
    since: 0,
    why: 'By hand',
  });
  const about = { ...draft().about, below: false };
  expect(entryOf(draft({ about }), parseEntry('x.test'), { ...origin, from: '7' })).toMatchObject({
    kind: 'domain',
    below: false,
    why: 'From a message',
  });
});

test('one value has one entry: another of the same value keeps its id and its day', () => {
  const entry = entryOf(draft(), parseEntry(old.value), { ...origin, twin: old });
  expect(entry).toMatchObject({ id: 'e', since: 5, standing: 'blocked' });
  expect(editsOf(entry, null)).toEqual([{ list: 'register', id: 'e', item: entry }]);
  // What was changed into it goes.
  expect(editsOf(entry, { ...old, id: 'other' })).toEqual([
    { list: 'register', id: 'other', item: null },
    { list: 'register', id: 'e', item: entry },
  ]);
  expect(editsOf(null, old)).toEqual([]);
});

test('a new entry stands from the moment that it is saved, an old one from its own', () => {
  const edits = editsOf({ ...old, since: 0 }, null);
  expect(stamped(edits, 9)).toMatchObject([{ item: { since: 9 } }]);
  expect(stamped(editsOf(old, null), 9)).toMatchObject([{ item: { since: 5 } }]);
});

test('what it would be about, in words', () => {
  const { about } = draft();
  expect(aboutWords('address', 'ana@x.test', about, null)).toBe('This one address.');
  expect(aboutWords('domain', 'x.test', about, null)).toMatch(/what lies below it\.$/);
  expect(aboutWords('domain', 'x.test', { ...about, below: false }, null)).toMatch(/not below it\.$/);
  expect(aboutWords('domain', 'x.test', about, old)).toMatch(/already, as Safe: this takes its place\.$/);
});
