import { entryWords, type Entry } from '../../core/senders/register';
import { mailroom } from '../../mailroom/client';
import { commandId, tellOutcome } from '../state/desk';
import { Dialog } from '../ui/Dialog';
import { useAnswer } from '../ui/useAnswer';
import { messages } from '../../core/text/sentences';
import { Waiting } from '../ui/Waiting';

interface TakeOffDialogProps {
  entry: Entry;
  onClose: () => void;
  onDone?: () => void;
}

/** Taking an entry off: with what it took brought back, or without. */
export function TakeOffDialog({ entry, onClose, onDone }: TakeOffDialogProps) {
  const { value, waiting } = useAnswer(() => mailroom.tookByEntry(entry.id), entry.id);
  const took = value ?? 0;
  const takeOff = async (bringBack: boolean) => {
    onClose();
    const says = `Took ${entryWords(entry)} off the Register`;
    const outcome = await mailroom.editSetup(
      commandId(),
      [{ list: 'register', id: entry.id, item: null }],
      says,
      bringBack,
    );
    if (tellOutcome(outcome)) onDone?.();
  };
  return (
    <Dialog title={`Take ${entryWords(entry)} off the Register?`} onClose={onClose}>
      <Waiting
        says="Looking at what it took …"
        answer={
          waiting
            ? null
            : took === 0
              ? 'No message here is where it is because of it.'
              : entry.standing === 'blocked'
                ? `${messages(took)} here went to Junk because of it. What you moved yourself since stays.`
                : `${messages(took)} here would be sorted otherwise without it.`
        }
      />
      <div className="mt-3 flex flex-wrap gap-2">
        {took > 0 && (
          <button className="btn btn-primary" autoFocus onClick={() => void takeOff(true)}>
            {entry.standing === 'blocked'
              ? `Take off and bring back ${messages(took)}`
              : `Take off and sort ${messages(took)}`}
          </button>
        )}
        <button
          className={`btn ${took > 0 ? '' : 'btn-primary'}`}
          disabled={waiting}
          onClick={() => void takeOff(false)}
        >
          {took > 0 ? 'Only take off' : 'Take off'}
        </button>
        <button className="btn btn-ghost" onClick={onClose}>
          Cancel
        </button>
      </div>
    </Dialog>
  );
}
