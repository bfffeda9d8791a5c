import { placeName, type Place } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import { messages } from '../../core/text/sentences';
import { Dialog } from '../ui/Dialog';

interface ManyDialogProps {
  asking: { selection: { ids: readonly number[] }; act: { place: Place } };
  setup: Setup;
  onSure: () => void;
  onClose: () => void;
}

/** A key that would move a great many messages asks once. */
export function ManyDialog({ asking: { selection, act }, setup, onSure, onClose }: ManyDialogProps) {
  const words = `Move ${messages(selection.ids.length)} to ${placeName(act.place, setup.folders)}`;
  return (
    <Dialog title={`${words}?`} onClose={onClose}>
      <p>Also what was never in sight. One Undo brings all of it back.</p>
      <div className="mt-4 flex gap-2">
        <button className="btn btn-primary btn-sm" autoFocus onClick={onSure}>
          {words}
        </button>
        <button className="btn btn-ghost btn-sm" onClick={onClose}>
          Leave it
        </button>
      </div>
    </Dialog>
  );
}
