// Files that go along with what is written.
import type { DraftContent } from '../../mailroom/border/drafts';
import { mailroom } from '../../mailroom/client';
import { commandId, say } from '../state/desk';
import { isPicture, showPicture } from './ownPictures';
import type { Writing } from './useDraft';

/** Takes files along: pictures where they may stand in the text, all others beside it. */
export function useFiles({ draft, change }: Writing) {
  return async (files: File[], inText: boolean) => {
    const shown: { contentId: string; name: string }[] = [];
    const added: DraftContent['files'] = [];
    if (!draft) return shown;
    for (const file of files) {
      const id = commandId();
      const bytes = new Uint8Array(await file.arrayBuffer());
      const kept = await mailroom.keepDraftFile(draft.id, id, bytes);
      if (!kept.ok) {
        say({ text: `“${file.name}” was not attached: ${kept.error}`, tone: 'trouble' });
        continue;
      }
      const contentId = inText && isPicture(file.type) ? `${id}@wide-sort` : undefined;
      added.push({
        id,
        name: file.name || 'picture',
        type: file.type || 'application/octet-stream',
        size: bytes.length,
        contentId,
      });
      if (contentId) {
        showPicture(contentId, bytes, file.type);
        shown.push({ contentId, name: file.name });
      }
    }
    if (added.length) change((before) => ({ files: [...before.files, ...added] }));
    return shown;
  };
}
