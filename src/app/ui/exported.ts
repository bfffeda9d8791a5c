// An export as the person hears of it: saved as a file, and what is missing in it.
import type { ExportResult } from '../../mailroom/border/transfer';
import { messages } from '../../core/text/sentences';
import { say } from '../state/desk';
import { saveFile } from './save';

/** Hands an export to the browser as a download, and says what it came to. */
export function saveExport(result: ExportResult): void {
  if (!result.ok) return say({ text: result.error, tone: 'trouble' });
  const { blob, name, count, lost } = result;
  saveFile(blob, name);
  const saved = `Saved ${messages(count)} as ${name}.`;
  if (lost === 0) return say({ text: saved, tone: 'done' });
  const missing = `The bytes of ${messages(lost)} are damaged or missing, so they are not in it.`;
  say({ text: `${saved} ${missing}`, tone: 'trouble' });
}
