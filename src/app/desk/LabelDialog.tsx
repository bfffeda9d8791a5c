import { useState } from 'react';
import { inTree } from '../../core/mail/nesting';
import { inks, type Label } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import type { Selection } from '../../mailroom/api';
import { mailroom } from '../../mailroom/client';
import { commandId, runAct, tellOutcome } from '../state/desk';
import { Dialog } from '../ui/Dialog';
import { InkTag } from '../ui/InkTag';
import { labelName } from '../ui/words';

interface LabelDialogProps {
  selection: Selection;
  setup: Setup;
  onClose: () => void;
}

/** Which label? One that is there, put on or taken off, or a new one. */
export function LabelDialog({ selection, setup, onClose }: LabelDialogProps) {
  const [typed, setTyped] = useState('');
  const word = typed.trim();
  const labels = inTree(setup.labels)
    .map(({ item }) => item)
    .filter(({ id }) => labelName(id, setup).toLowerCase().includes(word.toLowerCase()));
  const exact = labels.some(({ name }) => name.toLowerCase() === word.toLowerCase());
  const put = (label: string, value: boolean) => {
    onClose();
    void runAct(selection, { do: 'label', label, value });
  };
  const putNew = async () => {
    const label: Label = { id: commandId(), name: word, ink: inks[setup.labels.length % inks.length] };
    const made = await mailroom.editSetup(
      commandId(),
      [{ list: 'labels', id: label.id, item: label }],
      `Made the label ${word}`,
      false,
    );
    if (tellOutcome(made)) put(label.id, true);
  };
  return (
    <Dialog title="Label" onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (labels.length && (word || labels.length === 1)) put(labels[0].id, true);
          else if (word) void putNew();
        }}
      >
        <label className="mb-1 block text-sm" htmlFor="label-name">
          Label, or the name of a new one
        </label>
        <input
          id="label-name"
          className="input w-full"
          autoFocus
          autoComplete="off"
          maxLength={100}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
        <ul className="mt-2 flex max-h-72 flex-col gap-1 overflow-y-auto">
          {labels.map((label) => (
            <li key={label.id} className="flex items-center gap-2">
              <button
                type="button"
                className="btn flex-1 justify-start btn-ghost btn-sm"
                onClick={() => put(label.id, true)}
              >
                <InkTag id={label.id} setup={setup} />
                {label.parent !== undefined && <span className="quiet font-normal">{labelName(label.id, setup)}</span>}
              </button>
              <button
                type="button"
                className="btn btn-ghost btn-sm"
                onClick={() => put(label.id, false)}
                aria-label={`Take off ${label.name}`}
              >
                Take off
              </button>
            </li>
          ))}
          {word && !exact && (
            <li>
              <button type="button" className="btn w-full justify-start btn-ghost btn-sm" onClick={() => void putNew()}>
                Make the label “{word}”
              </button>
            </li>
          )}
        </ul>
      </form>
    </Dialog>
  );
}
