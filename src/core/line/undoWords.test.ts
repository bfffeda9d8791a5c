// Undone, done again, undone again: each is called what it does. In our own words.
import { undoneWords, undoOf } from './undoWords';

test('undone again and again, an entry keeps one name', () => {
  const first = undoneWords('Archived “Tide”', false);
  const second = undoneWords(first, true);
  const third = undoneWords(second, true);
  expect([first, second, third]).toEqual([
    'Undid: Archived “Tide”',
    'Did again: Archived “Tide”',
    'Undid: Archived “Tide”',
  ]);
});

test('what is offered: to undo, or to do again; what only sounds like an undo is none', () => {
  expect(undoOf('Undid: Archived “Tide”', true)).toEqual({ what: 'Archived “Tide”', again: true });
  expect(undoOf('Did again: Archived “Tide”', true)).toEqual({ what: 'Archived “Tide”', again: false });
  expect(undoOf('Undid: a subject', false)).toEqual({ what: 'Undid: a subject', again: false });
});
