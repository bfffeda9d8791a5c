import { deskActs } from '../desk/deskActs';
import { Dialog } from '../ui/Dialog';

const others: [keys: string, what: string][] = [
  ['↓ ↑', 'The next message, the one before'],
  ['Enter', 'Open'],
  ['Esc', 'Untick, then close the message'],
  ['Space', 'Tick the open message'],
  ['Ctrl A', 'Tick all that is shown, also beyond what is in sight'],
  ['Shift ↓ ↑', 'Tick on from the open row'],
  ['.', 'Acts go to this message, or to all of its conversation here'],
  ['D', 'Flag with a date: due'],
  ['L', 'Label'],
  ['M', 'Move'],
  ['Y', 'Reply'],
  ['Shift Y', 'Reply to all'],
  ['X', 'Save as .eml; with Shift as .mbox'],
  ['B', 'Block the sender'],
  ['W', 'Why here'],
  ['/', 'Search'],
  ['Q', 'The query as a form'],
  ['Z', 'Clear out what is shown'],
  ['Ctrl Z', 'Undo what was done here last'],
  ['?', 'This sheet'],
];

const views: [keys: string, what: string][] = [
  ['O', 'Show only: the next filter'],
  ['P', 'Apply the filter again'],
  ['G', 'Conversations or single messages'],
  ['V', 'Rows or lanes'],
  ['← →', 'The lane before, the next lane'],
  ['E', 'Open or close all of the conversation'],
  ['K', 'The conversation as a stack or a tree'],
  ['H', 'The whole conversation, or this message alone'],
  ['S', 'Silence the conversation, or end that'],
  ['Shift S', 'Silence it, to the Bin'],
  ['T', 'Thin the conversation out'],
];

/** All keys on one sheet. */
export function KeySheet({ onClose }: { onClose: () => void }) {
  const acts = deskActs.map((act): [string, string] => [act.keyWord, act.word]);
  return (
    <Dialog title="Keys" wide onClose={onClose}>
      <div className="grid gap-x-8 sm:grid-cols-2">
        {[[...acts, ...views], others].map((list, column) => (
          <dl key={column} className="grid auto-rows-min grid-cols-[4.5rem_1fr] gap-y-1.5">
            {list.map(([keys, what]) => (
              <div key={keys} className="contents">
                <dt>
                  <kbd className="key">{keys}</kbd>
                </dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
        ))}
      </div>
      <p className="quiet mt-4 text-sm">On a Mac, Ctrl is Cmd. Acts go to what is ticked, else to the open message.</p>
      <div className="mt-3 flex justify-end">
        <button className="btn btn-sm" onClick={onClose}>
          Close
        </button>
      </div>
    </Dialog>
  );
}
