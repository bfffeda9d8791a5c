import { useState } from 'react';
import { placeName, type Place } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import type { Selection } from '../../mailroom/api';
import { mailroom } from '../../mailroom/client';
import { commandId, runAct, tellOutcome } from '../state/desk';
import { Dialog } from '../ui/Dialog';
import { movablePlaces, placePath } from '../ui/words';

interface MoveDialogProps {
  selection: Selection;
  setup: Setup;
  onClose: () => void;
  /** Called with what moves the messages; true once they have moved. */
  onMove: (move: () => Promise<boolean>) => void;
}

/** Where to? A place that is there, or a new folder. */
export function MoveDialog({ selection, setup, onClose, onMove }: MoveDialogProps) {
  const [typed, setTyped] = useState('');
  const word = typed.trim();
  const places = movablePlaces(setup).filter((p) => placePath(p, setup).toLowerCase().includes(word.toLowerCase()));
  const exact = places.some((p) => placeName(p, setup.folders).toLowerCase() === word.toLowerCase());

  const move = (place: Place) => {
    onClose();
    onMove(() => runAct(selection, { do: 'move', place }));
  };
  const moveToNew = async () => {
    const folder = { id: commandId(), name: word };
    const made = await mailroom.editSetup(
      commandId(),
      [{ list: 'folders', id: folder.id, item: folder }],
      `Made the folder ${word}`,
      false,
    );
    if (tellOutcome(made)) move(`folder:${folder.id}`);
  };

  return (
    <Dialog title="Move to" onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (places.length) move(places[0]);
          else if (word) void moveToNew();
        }}
      >
        <label className="mb-1 block text-sm" htmlFor="move-place">
          Place, or the name of a new folder
        </label>
        <input
          id="move-place"
          className="input w-full"
          autoFocus
          autoComplete="off"
          maxLength={100}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
        <ul className="mt-2 flex max-h-72 flex-col overflow-y-auto">
          {places.map((place) => (
            <li key={place}>
              <button type="button" className="btn w-full justify-start btn-ghost btn-sm" onClick={() => move(place)}>
                {placePath(place, setup)}
              </button>
            </li>
          ))}
          {word && !exact && (
            <li>
              <button
                type="button"
                className="btn w-full justify-start btn-ghost btn-sm"
                onClick={() => void moveToNew()}
              >
                Make the folder “{word}”
              </button>
            </li>
          )}
        </ul>
      </form>
    </Dialog>
  );
}
