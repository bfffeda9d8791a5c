import { ownNames } from './fileName';

test('each file in a .zip has a name of its own, whatever case it is written in', () => {
  expect(ownNames(['a.png', 'A.PNG', 'a.png', 'b', 'b', '.x', '.x', 'a (2).png'])).toEqual([
    'a.png',
    'A (2).PNG',
    'a (3).png',
    'b',
    'b (2)',
    '.x',
    '.x (2)',
    'a (2) (2).png',
  ]);
});
