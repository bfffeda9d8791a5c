import { useState, type ReactNode } from 'react';
import type { SetupEdit } from '../../core/line/setupEdit';
import { mailroom } from '../../mailroom/client';
import { commandId, tellOutcome } from '../state/desk';
import { Form } from '../ui/Form';
import { Dialog } from '../ui/Dialog';

interface PickDialogProps<T> {
  title: string;
  /** What the field asks for. */
  label: string;
  /** What one of them is called: `label`, `folder`. */
  one: string;
  items: readonly T[];
  keyOf: (item: T) => string;
  /** The name that is searched while typing, and the one that a new one may not have. */
  nameOf: (item: T) => { whole: string; own: string };
  /** Whether Enter picks the first of those shown, with this typed. */
  enterPicks: (word: string, shown: number) => boolean;
  /** An item as a line of the list. */
  children: (item: T) => ReactNode;
  onPick: (item: T) => void;
  /** The edit that makes one of that name, and what is to happen once it is made. */
  onMake: (name: string) => { edit: SetupEdit; then: () => void };
  onClose: () => void;
}

/** Which of these? One that is there, found by typing part of its name, or a new one. */
export function PickDialog<T>(props: PickDialogProps<T>) {
  const { title, label, one, items, keyOf, nameOf, enterPicks, children, onPick, onMake, onClose } = props;
  const [typed, setTyped] = useState('');
  const word = typed.trim();
  const low = word.toLowerCase();
  const shown = items.filter((item) => nameOf(item).whole.toLowerCase().includes(low));
  const exact = shown.some((item) => nameOf(item).own.toLowerCase() === low);
  const make = async () => {
    const { edit, then } = onMake(word);
    if (tellOutcome(await mailroom.editSetup(commandId(), [edit], `Made the ${one} ${word}`, false))) then();
  };
  return (
    <Dialog title={title} onClose={onClose}>
      <Form
        onSubmit={() => {
          if (shown.length && enterPicks(word, shown.length)) onPick(shown[0]);
          else if (word) void make();
        }}
      >
        <label className="mb-1 block text-sm" htmlFor="pick-name">
          {label}
        </label>
        <input
          id="pick-name"
          className="input w-full"
          autoFocus
          autoComplete="off"
          maxLength={100}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
        <ul className="mt-2 flex max-h-72 flex-col gap-1 overflow-y-auto">
          {shown.map((item) => (
            <li key={keyOf(item)} className="flex items-center gap-2">
              {children(item)}
            </li>
          ))}
          {word && !exact && (
            <li>
              <button type="button" className="btn w-full justify-start btn-ghost btn-sm" onClick={() => void make()}>
                Make the {one} “{word}”
              </button>
            </li>
          )}
        </ul>
      </Form>
    </Dialog>
  );
}
