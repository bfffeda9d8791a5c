// What goes along with a forwarded message.
import { attachmentBytes, attachmentList, inlinePictures } from '../mail/body';
import type { Structure } from '../mail/structure';
import type { FileToSend } from './composing';
import { outgoingHtml, picturesShown } from './outgoingHtml';

/** What goes along with a forwarded message: its attachments, and the pictures that its text shows. */
export function forwardedFiles(raw: Uint8Array, structure: Structure, html: string): FileToSend[] {
  const files: FileToSend[] = attachmentList(raw, structure).map(({ name, type }, n) => ({
    name: name ?? 'attachment',
    type,
    bytes: attachmentBytes(raw, structure, n) ?? new Uint8Array(),
  }));
  const shown = picturesShown(outgoingHtml(html));
  for (const { contentId, type, bytes } of inlinePictures(raw, structure))
    if (shown.delete(contentId)) files.push({ name: `picture.${type.slice(6)}`, type, bytes, contentId });
  return files;
}
