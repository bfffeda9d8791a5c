import { inTree, nestingTrouble, pathOf, putWithin, standsWithin, type Nested } from './nesting';

const list: Nested[] = [
  { id: 'b', name: 'Storms', parent: 'a' },
  { id: 'a', name: 'Weather' },
  { id: 'c', name: 'Gales', parent: 'b' },
  { id: 'd', name: 'Lost', parent: 'gone' },
];

test('a tree reads each before what stands within it; what has lost its parent stands at the top', () => {
  expect(inTree(list).map(({ item, depth }) => `${depth} ${item.id}`)).toEqual(['0 a', '1 b', '2 c', '0 d']);
  expect(pathOf(list, 'c')).toBe('Weather / Storms / Gales');
  expect(pathOf(list, 'nowhere')).toBe('nowhere');
  expect(standsWithin(list, 'c', 'a')).toBe(true);
  expect(standsWithin(list, 'a', 'c')).toBe(false);
  expect(putWithin(list[0], undefined)).toEqual({ id: 'b', name: 'Storms' });
});

test('circles and depths are told', () => {
  expect(nestingTrouble(list.slice(0, 3))).toBe(null);
  expect(nestingTrouble(list)?.says).toMatch(/none with the id “gone”/);
  const circle = [
    { id: 'a', name: 'A', parent: 'b' },
    { id: 'b', name: 'B', parent: 'a' },
  ];
  expect(nestingTrouble(circle)).toEqual({ at: 0, says: '“A” would stand within itself' });
  expect(standsWithin(circle, 'a', 'c')).toBe(false);
  expect(pathOf(circle, 'a')).toMatch(/A$/);
  const deep = Array.from({ length: 12 }, (_, i) => ({
    id: `${i}`,
    name: `${i}`,
    ...(i ? { parent: `${i - 1}` } : {}),
  }));
  expect(nestingTrouble(deep)?.says).toMatch(/deeper than 8/);
});
