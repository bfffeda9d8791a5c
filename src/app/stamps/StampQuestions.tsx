import type { Setup } from '../../core/line/setup';
import type { Action } from '../../core/effects/effects';
import { lastingWords, missingTarget, type Stamp } from '../../core/stamps/stamp';
import { inks } from '../../core/mail/label';
import type { Place } from '../../core/mail/place';
import { PickDialog } from '../desk/PickDialog';
import { commandId } from '../state/desk';
import { Dialog } from '../ui/Dialog';
import { labelName, movablePlaces, placePath } from '../ui/naming';
import { Sure } from '../ui/Sure';
import { StampTry } from './StampTry';
import type { Press, StampQuestion } from './usePress';

/** What a stamp asks before it is carried out, or when it is looked at first. */
export function StampQuestions({ press }: { press: Press }) {
  const { question, close } = press;
  if (!question) return null;
  const { setup } = question;
  if (question.of === 'target') return <Target press={press} question={question} setup={setup} />;
  if (question.of === 'sure')
    return (
      <Sure words={press.words(question)} onGo={() => press.surely(question)} onClose={close}>
        <p>This stamp {lastingWords(question.stamp)}: that no Undo takes back.</p>
        <StampTry stamp={question.stamp} ids={question.ids} setup={setup} />
      </Sure>
    );
  return (
    <Dialog title={`What “${question.stamp.name}” would do`} wide onClose={close}>
      <StampTry stamp={question.stamp} ids={question.ids} setup={setup} />
      <div className="mt-4 flex gap-2">
        <button className="btn btn-primary btn-sm" onClick={() => press.surely(question)}>
          {press.words(question)}
        </button>
        <button className="btn btn-ghost btn-sm" onClick={close}>
          Leave it
        </button>
      </div>
    </Dialog>
  );
}

const withAct = (stamp: Stamp, at: number, act: Action): Stamp => ({
  ...stamp,
  acts: stamp.acts.map((one, n) => (n === at ? act : one)),
});

/** What a stamp lacks: asked at its first use, and kept. */
function Target({ press, question, setup }: { press: Press; question: StampQuestion; setup: Setup }) {
  const { stamp, ids } = question;
  const missing = missingTarget(stamp, setup);
  if (!missing) return null;
  const { at, act } = missing;
  const take = (next: Action) => void press.chosen(withAct(stamp, at, next), ids);
  const asks = `For the stamp “${stamp.name}”, which keeps it`;
  if (act.do === 'move')
    return (
      <PickDialog
        title="To which place?"
        label={`${asks}: a place, or the name of a new folder`}
        one="folder"
        items={movablePlaces(setup)}
        keyOf={(place) => place}
        nameOf={(place) => ({ whole: placePath(place, setup), own: placePath(place, setup) })}
        enterPicks={() => true}
        onPick={(place: Place) => take({ ...act, place })}
        onMake={(name) => {
          const id = commandId();
          return {
            edit: { list: 'folders', id, item: { id, name } },
            then: () => take({ ...act, place: `folder:${id}` }),
          };
        }}
        onClose={press.close}
      >
        {(place) => <Pick word={placePath(place, setup)} onPick={() => take({ ...act, place })} />}
      </PickDialog>
    );
  if (act.do === 'label' || act.do === 'unlabel')
    return (
      <PickDialog
        title="Which label?"
        label={`${asks}: a label, or the name of a new one`}
        one="label"
        items={setup.labels}
        keyOf={({ id }) => id}
        nameOf={({ id, name }) => ({ whole: labelName(id, setup), own: name })}
        enterPicks={() => true}
        onPick={({ id }) => take({ ...act, label: id })}
        onMake={(name) => {
          const id = commandId();
          const item = { id, name, ink: inks[setup.labels.length % inks.length] };
          return { edit: { list: 'labels', id, item }, then: () => take({ ...act, label: id }) };
        }}
        onClose={press.close}
      >
        {({ id }) => <Pick word={labelName(id, setup)} onPick={() => take({ ...act, label: id })} />}
      </PickDialog>
    );
  return (
    <Dialog title={`“${stamp.name}” can’t be carried out yet`} onClose={press.close}>
      <p>{missing.says}</p>
      {act.do === 'tray' && (
        <ul className="mt-2 flex flex-col gap-1">
          {setup.trays.map(({ id, name }) => (
            <li key={id}>
              <Pick word={name} onPick={() => take({ ...act, tray: id })} />
            </li>
          ))}
        </ul>
      )}
      {(act.do === 'answer' || act.do === 'write') && (
        <ul className="mt-2 flex flex-col gap-1">
          {setup.blocks.map(({ id, name }) => (
            <li key={id}>
              <Pick word={name} onPick={() => take({ ...act, block: id })} />
            </li>
          ))}
        </ul>
      )}
      <button className="btn mt-3 btn-ghost btn-sm" onClick={press.close}>
        Leave it
      </button>
    </Dialog>
  );
}

const Pick = ({ word, onPick }: { word: string; onPick: () => void }) => (
  <button type="button" className="btn w-full justify-start btn-ghost btn-sm" onClick={onPick}>
    {word}
  </button>
);
