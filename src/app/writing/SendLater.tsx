import { OfferedMoments } from '../desk/OfferedMoments';
import { Dialog } from '../ui/Dialog';

/** When is it to go? A moment that is offered, or a typed one. */
export function SendLater({ onClose, onTake }: { onClose: () => void; onTake: (at: number) => void }) {
  return (
    <Dialog title="Send later" onClose={onClose}>
      <OfferedMoments
        id="send-later-typed"
        word="Send then"
        onTake={(at) => {
          onClose();
          onTake(at);
        }}
      />
      <p className="quiet mt-3 text-sm">
        Until then it stands in Drafts and can be taken back. It goes while Wide Sort is open in some tab: where none
        is, as soon as one is opened again.
      </p>
    </Dialog>
  );
}
