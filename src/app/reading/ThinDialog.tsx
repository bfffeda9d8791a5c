import type { ThinReason } from '../../core/conversations/thinning';
import type { ThinLine } from '../../mailroom/border/conversations';
import { mailroom } from '../../mailroom/client';
import { commandId, tellOutcome } from '../state/desk';
import { Dialog } from '../ui/Dialog';
import { exactTime } from '../../core/text/time';
import { useAnswer } from '../ui/useAnswer';
import { messages } from '../../core/text/sentences';
import { Waiting } from '../ui/Waiting';

const stays: Record<ThinReason, string> = {
  'stands whole': '',
  flagged: 'It is flagged.',
  unread: 'It is unread.',
  attachment: 'It has an attachment that the later message lacks.',
  link: 'It has a link that the later message lacks.',
  'no text': 'It has no text to look for in the others.',
  'said only here': 'What it says stands whole in no later message.',
};

const who = ({ from }: ThinLine['row']) => from.name || from.address || 'No sender';

function why({ goes, standsIn, reason }: ThinLine): string {
  if (!goes || !standsIn) return stays[reason];
  return `All of it stands in what ${who(standsIn)} sent on ${exactTime(standsIn.date)}.`;
}

/** Thin out? Which messages would go, and why each is safe to go; which stay, and why. */
export function ThinDialog({ id, onClose }: { id: number; onClose: () => void }) {
  const { value: lines, error } = useAnswer(() => mailroom.thinning(id), `${id}`);
  const going = lines?.filter((line) => line.goes).length ?? 0;
  const thinOut = async () => {
    onClose();
    tellOutcome(await mailroom.thinOut(commandId(), id));
  };
  return (
    <Dialog title="Thin out the conversation" wide onClose={onClose}>
      {error && <p className="text-error">{error}</p>}
      {!lines && !error && <Waiting says="Comparing the messages …" />}
      {lines && (
        <>
          <p className="mb-3">
            {going === 0
              ? 'Nothing can go: every message says something of its own, or must stay.'
              : `${messages(going)} would go to the Bin. Everything ${going === 1 ? 'it says' : 'they say'} stands again, word for word, in messages that stay.`}
          </p>
          <ul
            tabIndex={0}
            aria-label="What goes and what stays"
            className="max-h-[45vh] overflow-y-auto border-y border-base-300"
          >
            {lines.map((line) => (
              <li key={line.row.id} className="flex gap-3 border-b border-base-300 py-1.5 last:border-0">
                <span className={`w-14 shrink-0 ${line.goes ? 'font-semibold text-error' : 'quiet'}`}>
                  {line.goes ? 'goes' : 'stays'}
                </span>
                <span className="min-w-0">
                  <span className="font-semibold">{who(line.row)}</span>{' '}
                  <span className="quiet text-sm">{exactTime(line.row.date)}</span>
                  <br />
                  <span className="text-sm">{why(line)}</span>
                </span>
              </li>
            ))}
          </ul>
          <div className="mt-4 flex justify-end gap-2">
            <button className="btn btn-sm" onClick={onClose}>
              {going === 0 ? 'Close' : 'Keep all'}
            </button>
            {going > 0 && (
              <button className="btn btn-error btn-sm" onClick={() => void thinOut()}>
                Bin {messages(going)}
              </button>
            )}
          </div>
        </>
      )}
    </Dialog>
  );
}
