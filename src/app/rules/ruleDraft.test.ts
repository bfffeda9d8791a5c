import { emptySetup, type Setup } from '../../core/line/setup';
import { conditionsOf, type Condition, type Rule } from '../../core/rules/rule';
import {
  countsOf,
  draftOf,
  emptyCondition,
  emptyDraft,
  isComplete,
  newFolderPlace,
  placesOf,
  readDraft,
  withNew,
  type RuleDraft,
} from './ruleDraft';

const setup: Setup = {
  ...emptySetup,
  folders: [{ id: 'f', name: 'Fuel' }],
  labels: [{ id: 'l', name: 'Later', ink: 'sea' }],
};
const ids = { rule: 'r1', folder: 'f1', label: 'l1' };
const when: RuleDraft['when'] = { match: 'all', of: [{ field: 'subject', how: 'contains', text: ' fuel ' }] };
const draft = (part: Partial<RuleDraft>): RuleDraft => ({ ...emptyDraft, when, ...part });

test.each<[Partial<RuleDraft>, RegExp]>([
  [{ when: emptyDraft.when, then: [{ do: 'read' }] }, /should look for/],
  [{}, /should do/],
  [{ then: [{ do: 'move', place: newFolderPlace(ids) }] }, /new folder a name/],
  [{ then: [{ do: 'label', label: ids.label }], newLabel: ' ' }, /new label a name/],
  [
    {
      then: [{ do: 'read' }],
      when: { match: 'all', of: [{ field: 'header', name: 'no name', how: 'there', text: '' }] },
    },
    /Header field must be the name/,
  ],
])('a draft that lacks something says what', (part, error) => {
  const read = readDraft(draft(part), setup, ids);
  expect(read.ok ? '' : read.error).toMatch(error);
});

test('what is not complete is left out, what was typed loses the blanks around it', () => {
  const read = readDraft(
    draft({
      when: {
        match: 'any',
        of: [
          { field: 'subject', how: 'contains', text: ' fuel ' },
          { field: 'from', how: 'contains', text: ' ' },
          { match: 'all', of: [{ field: 'date', how: 'on', day: '' }] },
        ],
      },
      unless: { match: 'any', of: [{ field: 'cc', how: 'is', text: '' }] },
      then: [{ do: 'read' }],
    }),
    setup,
    ids,
  );
  expect(read).toMatchObject({
    ok: true,
    rule: { when: { match: 'any', of: [{ field: 'subject', how: 'contains', text: 'fuel' }] }, unless: null },
  });
});

test('a new folder and a new label come before the rule that speaks of them', () => {
  const then: RuleDraft['then'] = [
    { do: 'label', label: ids.label },
    { do: 'move', place: newFolderPlace(ids) },
  ];
  const read = readDraft(draft({ then, newFolder: ' Oil ', newLabel: 'Now' }), setup, ids);
  expect(read.ok && read.edits).toMatchObject([
    { list: 'labels', id: 'l1', item: { name: 'Now', ink: 'moss' } },
    { list: 'folders', id: 'f1', item: { name: 'Oil' } },
    { list: 'rules', id: 'r1', item: { then } },
  ]);
});

test('what an act still wants is said in words: an address, a text block', () => {
  const wants = (...then: RuleDraft['then']) => readDraft(draft({ then }), setup, ids);
  expect(wants({ do: 'forward', to: '', form: 'text' })).toEqual({
    ok: false,
    error: 'Type the address to which it is forwarded.',
  });
  expect(wants({ do: 'answer', block: 'none' })).toEqual({
    ok: false,
    error: 'Write a text block first (Set up, Text blocks).',
  });
  expect(wants({ do: 'label', label: 'gone' })).toEqual({
    ok: false,
    error: 'There is no label with the id “gone”',
  });
  expect(wants({ do: 'forward', to: 'a@b.test', form: 'text' }).ok).toBe(true);
});

test('a rule becomes a draft and the same rule again', () => {
  const rule: Rule = {
    id: 'r1',
    name: 'Mine',
    on: false,
    when: { match: 'none', of: [{ match: 'any', of: [{ field: 'body', how: 'contains', text: 'a' }] }] },
    unless: { match: 'all', of: [{ field: 'answer' }] },
    then: [{ do: 'flag', due: 'today' }, { do: 'stop' }],
  };
  expect(readDraft(draftOf(rule), setup, ids)).toMatchObject({ ok: true, rule });
});

test('every field has a condition to begin with', () => {
  expect(isComplete(emptyCondition('every', setup))).toBe(true);
  expect(isComplete(emptyCondition('age', setup))).toBe(true);
  expect(isComplete(emptyCondition('from', setup))).toBe(false);
  expect(isComplete(emptyCondition('account', setup))).toBe(false);
});

test('the counts of a draft stand at its conditions, those that are not complete left out', () => {
  const subject = (text: string): Condition => ({ field: 'subject', how: 'contains', text });
  const of = draft({
    when: { match: 'all', of: [subject('a'), subject(''), { match: 'any', of: [subject('b'), subject('')] }] },
    unless: { match: 'any', of: [subject('c')] },
  });
  expect([...placesOf(of)].map(({ at }) => at)).toEqual(['when 0', 'when 1', 'when 2.0', 'when 2.1', 'unless 0']);
  // The mailroom counts the conditions of the rule that the draft would be, in the same order.
  const read = readDraft({ ...of, then: [{ do: 'read' }] }, setup, ids);
  expect(read.ok && [...conditionsOf(read.rule)]).toEqual([subject('a'), subject('b'), subject('c')]);
  expect([...countsOf(of, [4, 2, 1])]).toEqual([
    ['when 0', 4],
    ['when 2.0', 2],
    ['unless 0', 1],
  ]);
});

test('what is still to be made has a name in the sentence of the rule', () => {
  const named = withNew(setup, draft({ newFolder: ' Bunkers ' }), ids);
  expect(named.folders.at(-1)).toEqual({ id: 'f1', name: 'Bunkers' });
  expect(named.labels.at(-1)?.name).toBe('the new label');
});
