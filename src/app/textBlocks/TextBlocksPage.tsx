import { blockText, textBlockTrouble } from '../../core/writing/blockText';
import type { TextBlock } from '../../core/writing/textBlock';
import { short } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { DraftForm } from '../ui/DraftForm';
import { Page } from '../ui/Page';
import { useDraft } from '../ui/useDraft';
import { usePart } from '../ui/usePart';

// The editor is large, and wanted only where something is written.
const richPart = () => import('../writing/RichText');

/** Pieces of writing with a name, put in by typing a few letters. */
export function TextBlocksPage() {
  const setup = useMailbox((s) => s.overview?.setup);
  const { draft, setDraft, close } = useDraft<TextBlock>();
  const Rich = usePart(richPart, draft !== null)?.RichText;
  if (!setup) return null;
  const others = setup.blocks.filter(({ id }) => id !== draft?.id);
  const edit = async (id: string, item: TextBlock | null, says: string) => {
    if (tellOutcome(await mailroom.editSetup(commandId(), [{ list: 'blocks', id, item }], says, false))) close(id);
  };
  return (
    <Page
      title="Text blocks"
      acts={
        <>
          <UndoSpot />
          <button className="btn btn-primary btn-sm" onClick={() => setDraft({ id: commandId(), name: '', html: '' })}>
            New text block
          </button>
        </>
      }
    >
      <div className="flex max-w-2xl flex-col gap-3">
        <p className="max-w-prose">
          Pieces of writing that are wanted again and again. While you write, type <kbd className="key">;</kbd> and the
          first letters of a name, then <kbd className="key">Tab</kbd>.
        </p>
        {draft && (
          <DraftForm
            error={textBlockTrouble(draft, others)}
            save="Save"
            onSave={() =>
              void edit(draft.id, { ...draft, name: draft.name.trim() }, `Set the text block “${draft.name.trim()}”`)
            }
            onLeave={() => setDraft(null)}
          >
            <label className="flex flex-col text-sm">
              Name, one word
              <input
                className="input input-sm w-full"
                autoFocus
                maxLength={60}
                value={draft.name}
                onChange={(event) => setDraft({ ...draft, name: event.target.value })}
              />
            </label>
            {Rich && (
              <Rich
                key={draft.id}
                html={draft.html}
                onChange={(html) => setDraft((before) => before && { ...before, html })}
              />
            )}
          </DraftForm>
        )}
        {setup.blocks.length === 0 && !draft && <p className="quiet">No text block yet.</p>}
        <ul aria-label="Text blocks" className="flex flex-col">
          {setup.blocks.map((block) => (
            <li key={block.id} className="flex items-center gap-2 border-t border-base-300 py-1">
              <span className="w-40 shrink-0 truncate font-semibold">{block.name}</span>
              <span className="quiet min-w-0 flex-1 truncate" dir="auto">
                {short(blockText(block.html).replace(/\s+/g, ' '), 100)}
              </span>
              <button
                className="btn btn-ghost btn-sm"
                onClick={() => setDraft(block)}
                aria-label={`Change ${block.name}`}
              >
                Change
              </button>
              <button
                className="btn btn-ghost btn-sm"
                onClick={() => void edit(block.id, null, `Took the text block “${block.name}” off`)}
                aria-label={`Take off ${block.name}`}
              >
                Take off
              </button>
            </li>
          ))}
        </ul>
      </div>
    </Page>
  );
}
