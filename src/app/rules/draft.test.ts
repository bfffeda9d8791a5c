import { emptySetup, type Setup } from '../../core/line/setup';
import type { Rule } from '../../core/rules/rule';
import type { OpenMessage } from '../../mailroom/api';
import { draftOf, emptyDraft, newOne, readDraft, suggestions, type RuleDraft } from './draft';

const ids = { rule: 'r', folder: 'f', label: 'l' };
const setup: Setup = {
  ...emptySetup,
  folders: [{ id: 'old', name: 'Old' }],
  labels: [{ id: 'x', name: 'X', ink: 'sea' }],
};
const draft = (part: Partial<RuleDraft>): RuleDraft => ({ ...emptyDraft, ...part });
const when = [{ field: 'subject' as const, contains: ' fuel ' }];

test.each([
  ['nothing to look for', draft({ move: 'archive' }), 'Say what the rule should look for.'],
  [
    'blanks to look for',
    draft({ when: [{ field: 'from', contains: '  ' }], read: true }),
    'Say what the rule should look for.',
  ],
  ['nothing to do', draft({ when }), 'Say what the rule should do.'],
  ['a folder without a name', draft({ when, move: newOne, newFolder: ' ' }), 'Give the new folder a name.'],
  ['a label without a name', draft({ when, label: newOne }), 'Give the new label a name.'],
])('%s is said', (_what, unfinished, error) => {
  expect(readDraft(unfinished, setup, ids)).toEqual({ ok: false, error });
});

test('a new folder and a new label are made before the rule that needs them', () => {
  const read = readDraft(
    draft({ when, move: newOne, newFolder: 'Fuel', label: newOne, newLabel: 'Cost', read: true }),
    setup,
    ids,
  );
  expect(read).toMatchObject({
    ok: true,
    rule: {
      when: [{ field: 'subject', contains: 'fuel' }],
      then: [{ do: 'label', label: 'l' }, { do: 'read' }, { do: 'move', place: 'folder:f' }],
    },
    edits: [
      // The second label of a setup has the second ink.
      { list: 'labels', item: { name: 'Cost', ink: 'moss' } },
      { list: 'folders', item: { name: 'Fuel' } },
      { list: 'rules', id: 'r' },
    ],
  });
});

test('a rule that is there comes back from its draft as it was', () => {
  const rule: Rule = {
    id: 'r',
    name: 'Mine',
    on: false,
    match: 'any',
    when: [{ field: 'list', contains: 'a' }],
    then: [{ do: 'label', label: 'x' }, { do: 'read' }, { do: 'move', place: 'folder:old' }],
  };
  expect(readDraft(draftOf(rule), setup, ids)).toMatchObject({ ok: true, rule });
});

test('what one message suggests, the most telling first', () => {
  const message = {
    listId: 'news.x.example',
    row: {
      from: { name: '', address: 'a@b.example' },
      subject: 'Re: Fwd: Berth 4',
      to: [{ name: '', address: 'me@c.example' }],
    },
  } as OpenMessage;
  expect(suggestions(message)).toEqual([
    { field: 'list', contains: 'news.x.example' },
    { field: 'from', contains: 'a@b.example' },
    { field: 'from', contains: '@b.example' },
    { field: 'subject', contains: 'Berth 4' },
    { field: 'to', contains: 'me@c.example' },
  ]);
  expect(
    suggestions({
      listId: '',
      row: { from: { name: '', address: '' }, subject: '', to: [] },
    } as unknown as OpenMessage),
  ).toEqual([]);
});
