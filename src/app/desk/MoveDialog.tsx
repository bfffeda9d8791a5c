import { placeName, type Place } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import type { Selection } from '../../mailroom/border/views';
import { commandId, runAct } from '../state/desk';
import { movablePlaces, placePath } from '../ui/naming';
import { PickDialog } from './PickDialog';

interface MoveDialogProps {
  selection: Selection;
  setup: Setup;
  onClose: () => void;
  /** Called with what moves the messages; true once they have moved. */
  onMove: (move: () => Promise<boolean>) => void;
}

/** Where to? A place that is there, or a new folder. */
export function MoveDialog({ selection, setup, onClose, onMove }: MoveDialogProps) {
  const move = (place: Place) => {
    onClose();
    onMove(() => runAct(selection, { do: 'move', place }));
  };
  return (
    <PickDialog
      title="Move to"
      label="Place, or the name of a new folder"
      one="folder"
      items={movablePlaces(setup)}
      keyOf={(place) => place}
      nameOf={(place) => ({ whole: placePath(place, setup), own: placeName(place, setup.folders) })}
      enterPicks={() => true}
      onPick={move}
      onMake={(name) => {
        const folder = { id: commandId(), name };
        return { edit: { list: 'folders', id: folder.id, item: folder }, then: () => move(`folder:${folder.id}`) };
      }}
      onClose={onClose}
    >
      {(place) => (
        <button type="button" className="btn w-full justify-start btn-ghost btn-sm" onClick={() => move(place)}>
          {placePath(place, setup)}
        </button>
      )}
    </PickDialog>
  );
}
