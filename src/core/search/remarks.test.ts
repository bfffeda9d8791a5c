import { queryRemarks } from './remarks';

const labels = ['Alarm', 'Engine room'].map((name) => ({ id: name, name }));

test.each([
  ['from:ann', [[0, '“from:ann” is looked for as it stands. A key stands before a blank: from ann']]],
  ['unseen subject: tide', [[7, '“subject:” is looked for as it stands. A key stands before a blank: subject …']]],
  ['note:this re: 12:30 "from:ann" http://x.test', []],
  ['keyword alarm', []],
  ['seen unkeyword Nowhere', [[15, 'There is no label “Nowhere”: Alarm, Engine room are there.']]],
  ['keyword "No where"', [[8, 'There is no label “No where”: Alarm, Engine room are there.']]],
  ['keyword', []],
])('of the query %j is said', (text, expected) => {
  expect(queryRemarks(text, labels).map(({ at, says }) => [at, says])).toEqual(expected);
});

test('where there is no label at all, that is said', () => {
  expect(queryRemarks('keyword x', [])[0].says).toBe('There is no label “x”, nor any other.');
});

test('of two labels with one name both count, and which they are is said; by its path one counts', () => {
  const nested = [
    { id: 'w', name: 'Weather' },
    { id: 'a', name: 'Storms', parent: 'w' },
    { id: 'b', name: 'Storms' },
  ];
  expect(queryRemarks('keyword storms', nested)).toEqual([
    { at: 8, says: '2 labels are called “storms”, and all of them count: “Weather / Storms” and “Storms”.' },
  ]);
  expect(queryRemarks('keyword "weather / storms"', nested)).toEqual([]);
});
