// Contacts are changed as one command, however many they are.
import type { Contact } from '../../core/contacts/contact';
import type { SetupEdit } from '../../core/line/setupEdit';
import { mailroom } from '../../mailroom/client';
import { commandId, tellOutcome } from '../state/desk';

/** Changes contacts, or takes them off (null); whether it went well. `says`: what the Logbook says of it. */
export async function editContacts(
  changes: readonly { id: string; item: Contact | null }[],
  says: string,
): Promise<boolean> {
  const edits: SetupEdit[] = changes.map(({ id, item }) => ({ list: 'contacts', id, item }));
  return tellOutcome(await mailroom.editSetup(commandId(), edits, says, false));
}
