import type { ReactNode } from 'react';
import { Dialog } from './Dialog';

interface SureProps {
  /** What would be done: `Archive 1,234 messages`. It is the question, and the yes. */
  words: string;
  /** What follows of it. */
  children: ReactNode;
  onGo: () => void;
  onClose: () => void;
}

/** The one question before a great many messages go. */
export function Sure({ words, children, onGo, onClose }: SureProps) {
  return (
    <Dialog title={`${words}?`} onClose={onClose}>
      {children}
      <div className="mt-4 flex gap-2">
        <button className="btn btn-primary btn-sm" autoFocus onClick={onGo}>
          {words}
        </button>
        <button className="btn btn-ghost btn-sm" onClick={onClose}>
          Leave it
        </button>
      </div>
    </Dialog>
  );
}
