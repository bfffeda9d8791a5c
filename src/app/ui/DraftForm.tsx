import type { ReactNode } from 'react';
import { Form } from './Form';

interface DraftFormProps {
  /** What is wrong with the draft, in words; null where it can be saved. */
  error: string | null;
  /** What the button says that saves it. */
  save: string;
  onSave: () => void;
  onLeave: () => void;
  children: ReactNode;
}

/** Something new, or something changed, among others of its kind: its fields, what is wrong with them, save or leave. */
export function DraftForm({ error, save, onSave, onLeave, children }: DraftFormProps) {
  return (
    <Form
      className="flex flex-col gap-2 rounded border-2 border-primary p-3"
      onSubmit={() => {
        if (error === null) onSave();
      }}
    >
      {children}
      {error && <p className="text-sm">{error}</p>}
      <div className="flex gap-2">
        <button className="btn btn-primary btn-sm" disabled={error !== null}>
          {save}
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onLeave}>
          Leave it
        </button>
      </div>
    </Form>
  );
}
