import fc from 'fast-check';
import { stack, tree } from './order';

const of = (...list: [id: number, parent: number | null, date: number][]) =>
  list.map(([id, parent, date]) => ({ id, parent, date }));
const members = of([0, null, 10], [1, 0, 20], [2, 0, 30], [3, 1, 40], [4, 99, 15]);

test('the stack: by time, oldest or newest first', () => {
  expect(stack(members, false).map((p) => p.member.id)).toEqual([0, 4, 1, 2, 3]);
  expect(stack(members, true).map((p) => p.member.id)).toEqual([3, 2, 1, 4, 0]);
});
test('of one moment, the one that came first is the older', () => {
  expect(stack(of([7, null, 1], [3, null, 1]), false).map((p) => p.member.id)).toEqual([3, 7]);
});
test('the tree: answers below what they answer; what answers a message that is not here is a beginning', () => {
  const show = (newest: boolean) => tree(members, newest).map(({ member, depth }) => `${depth}:${member.id}`);
  expect(show(false)).toEqual(['0:0', '1:1', '2:3', '1:2', '0:4']);
  expect(show(true)).toEqual(['0:4', '0:0', '1:2', '1:1', '2:3']);
});
test('both pictures show every member once', () => {
  const any = fc.array(fc.record({ parent: fc.nat({ max: 20 }), date: fc.nat({ max: 5 }) }), { maxLength: 20 });
  fc.assert(
    fc.property(any, fc.boolean(), (list, newest) => {
      const all = list.map(({ parent, date }, id) => ({ id, parent: parent < id ? parent : null, date }));
      for (const picture of [stack(all, newest), tree(all, newest)])
        expect(picture.map((p) => p.member.id).sort((a, b) => a - b)).toEqual(all.map((m) => m.id));
    }),
  );
});
