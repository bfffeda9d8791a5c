import { inTree } from '../../core/mail/nesting';
import { inks, type Label } from '../../core/mail/label';
import type { Setup } from '../../core/line/setup';
import type { Selection } from '../../mailroom/border/views';
import { commandId, runAct } from '../state/desk';
import { InkTag } from '../ui/InkTag';
import { labelName } from '../ui/naming';
import { PickDialog } from './PickDialog';

interface LabelDialogProps {
  selection: Selection;
  setup: Setup;
  onClose: () => void;
}

/** Which label? One that is there, put on or taken off, or a new one. */
export function LabelDialog({ selection, setup, onClose }: LabelDialogProps) {
  const put = (label: string, value: boolean) => {
    onClose();
    void runAct(selection, { do: 'label', label, value });
  };
  return (
    <PickDialog
      title="Label"
      label="Label, or the name of a new one"
      one="label"
      items={inTree(setup.labels).map(({ item }) => item)}
      keyOf={({ id }) => id}
      nameOf={({ id, name }) => ({ whole: labelName(id, setup), own: name })}
      enterPicks={(word, shown) => word !== '' || shown === 1}
      onPick={({ id }) => put(id, true)}
      onMake={(name) => {
        const label: Label = { id: commandId(), name, ink: inks[setup.labels.length % inks.length] };
        return { edit: { list: 'labels', id: label.id, item: label }, then: () => put(label.id, true) };
      }}
      onClose={onClose}
    >
      {(label) => (
        <>
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
        </>
      )}
    </PickDialog>
  );
}
