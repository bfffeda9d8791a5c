// All keys, as they are pressed (ui/useKeys.ts), as they are written, and what each does: for the sheet of keys, and for
// whoever types what they want done.
import { deskActs } from '../desk/deskActs';

export interface Key {
  /** As useKeys names it; null where several stand for one line. */
  pressed: string | null;
  shown: string;
  what: string;
}

const key = (shown: string, what: string, pressed: string | null = shown.toLowerCase().replace(' ', '+')): Key => ({
  pressed,
  shown,
  what,
});

/** Keys of acts and of what is seen. */
export const actKeys: readonly Key[] = [
  ...deskActs.map(({ pressed, keyWord, word }) => key(keyWord, word, pressed)),
  key('O', 'Show only: the next filter'),
  key('P', 'Apply the filter again'),
  key('G', 'Conversations or single messages'),
  key('V', 'Rows or lanes'),
  key('← →', 'The lane before, the next lane', null),
  key('E', 'Open or close all of the conversation'),
  key('K', 'The conversation as a stack or a tree'),
  key('H', 'The whole conversation, or this message alone'),
  key('S', 'Silence the conversation, or end that'),
  key('Shift S', 'Silence it, to the Bin'),
  key('T', 'Thin the conversation out'),
];

/** All others. */
export const otherKeys: readonly Key[] = [
  key(':', 'Go anywhere, do anything by typing'),
  key('↓ ↑', 'The next message, the one before', null),
  key('Ctrl ↓ ↑', 'Scroll the message', null),
  key('Enter', 'Open'),
  key('Esc', 'Untick, then close the message', 'escape'),
  key('Space', 'Tick the open message', ' '),
  key('Ctrl A', 'Tick all that is shown, also beyond what is in sight'),
  key('Shift ↓ ↑', 'Tick on from the open row', null),
  key('.', 'Acts go to this message, or to all of its conversation here'),
  key('D', 'Flag with a date: due'),
  key('Shift D', 'Put off until a moment'),
  key('Shift T', 'Put in a tray'),
  key('L', 'Label'),
  key('M', 'Move'),
  key('Y', 'Reply'),
  key('Shift Y', 'Reply to all'),
  key('Shift F', 'Forward'),
  key('Shift O', 'Forward as a file, byte for byte'),
  key('Shift W', 'Write a new message'),
  key('Shift C', 'Keep cards of the senders: contacts'),
  key('Ctrl Enter', 'Send what is written', null),
  key('1 … 9', 'The stamps, in their order', null),
  key('0', 'Before a digit: what that stamp would do, first'),
  key('Shift K', 'Make a task of it'),
  key('Shift A', 'Make an appointment of it'),
  key('X', 'Save as .eml'),
  key('Shift X', 'Save as .mbox'),
  key('B', 'Block the sender'),
  key('Shift B', 'Mark the sender as safe'),
  key('Shift R', 'Sort mail like this: a rule'),
  key('W', 'Why here'),
  key('/', 'Search'),
  key('Q', 'The query as a form'),
  key('Z', 'Clear out what is shown'),
  key('Ctrl Z', 'Undo what was done here last'),
  key('?', 'This sheet'),
];
