import { deskActs } from '../desk/acts';
import { Dialog } from '../ui/Dialog';

const others: [keys: string, what: string][] = [
  ['↓ ↑', 'The next message, the one before'],
  ['Enter', 'Open'],
  ['Esc', 'Untick, then close the message'],
  ['Space', 'Tick the open message'],
  ['Ctrl A', 'Tick all in the place'],
  ['M', 'Move'],
  ['B', 'Block the sender'],
  ['W', 'Why here'],
  ['Ctrl Z', 'Undo'],
  ['?', 'This sheet'],
];

/** All keys on one sheet. */
export function KeySheet({ onClose }: { onClose: () => void }) {
  const acts = deskActs.map((act): [string, string] => [act.keyWord, act.word]);
  return (
    <Dialog title="Keys" onClose={onClose}>
      <dl className="grid grid-cols-[5rem_1fr] gap-y-1.5">
        {[...acts, ...others].map(([keys, what]) => (
          <div key={keys} className="contents">
            <dt>
              <kbd className="key">{keys}</kbd>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <p className="quiet mt-4 text-sm">On a Mac, Ctrl is Cmd. Acts go to what is ticked, else to the open message.</p>
    </Dialog>
  );
}
