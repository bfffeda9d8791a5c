import type { Setup } from '../../core/line/setup';
import { placeName } from '../../core/mail/place';
import { messages } from '../../core/text/sentences';
import type { Act, Selection } from '../../mailroom/border/views';
import type { Rescued } from '../junk/RescueDialog';
import { Sure } from '../ui/Sure';
import { usePart } from '../ui/usePart';
import { DueDialog } from './DueDialog';
import { LabelDialog } from './LabelDialog';
import { MoveDialog } from './MoveDialog';
import { PutOffDialog } from './PutOffDialog';

const trayPart = () => import('../trays/PutInTrayDialog');
const rescuePart = () => import('../junk/RescueDialog');

/** What is asked before something is done. */
export type Question =
  | { of: 'move' | 'label' | 'due' | 'put off' | 'tray'; selection: Selection }
  | { of: 'many'; selection: { ids: number[] }; act: Extract<Act, { do: 'move' }> };

/** A key that would move a great many messages. */
type ManyQuestion = Extract<Question, { of: 'many' }>;

/** What is asked now, and what comes of the answer. */
interface Asked {
  asking: Question | null;
  rescuing: Rescued | null;
  answered: () => void;
  moveAway: (selection: Selection, move: () => Promise<boolean>) => Promise<void>;
  surely: (asking: ManyQuestion) => void;
}

interface ManyProps {
  asking: ManyQuestion;
  setup: Setup;
  onGo: () => void;
  onClose: () => void;
}

function Many({ asking: { selection, act }, setup, onGo, onClose }: ManyProps) {
  const words = `Move ${messages(selection.ids.length)} to ${placeName(act.place, setup.folders)}`;
  return (
    <Sure words={words} onGo={onGo} onClose={onClose}>
      <p>Also what was never in sight. One Undo brings all of it back.</p>
    </Sure>
  );
}

/** What an act asks before it is done. */
export function DeskDialogs({ acts, setup }: { acts: Asked; setup: Setup }) {
  const { asking, rescuing, answered, moveAway, surely } = acts;
  const Rescue = usePart(rescuePart, rescuing !== null)?.RescueDialog;
  const TrayPart = usePart(trayPart, asking?.of === 'tray')?.PutInTrayDialog;
  if (rescuing)
    return (
      Rescue && (
        <Rescue
          rescued={rescuing}
          onClose={answered}
          onRescue={(rescue) => void moveAway(rescuing.selection, rescue)}
        />
      )
    );
  if (!asking) return null;
  if (asking.of === 'many')
    return <Many asking={asking} setup={setup} onGo={() => surely(asking)} onClose={answered} />;
  const { of, selection } = asking;
  if (of === 'label') return <LabelDialog selection={selection} setup={setup} onClose={answered} />;
  if (of === 'due') return <DueDialog selection={selection} onClose={answered} />;
  if (of === 'put off')
    return (
      <PutOffDialog selection={selection} onClose={answered} onPutOff={(putOff) => void moveAway(selection, putOff)} />
    );
  if (of === 'tray')
    return (
      TrayPart && (
        <TrayPart
          selection={selection}
          setup={setup}
          onClose={answered}
          onPut={(put) => void moveAway(selection, put)}
        />
      )
    );
  return (
    <MoveDialog
      selection={selection}
      setup={setup}
      onClose={answered}
      onMove={(move) => void moveAway(selection, move)}
    />
  );
}
