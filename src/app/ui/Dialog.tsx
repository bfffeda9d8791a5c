import { useEffect, useId, useRef, type ReactNode } from 'react';

interface DialogProps {
  title: string;
  children: ReactNode;
  /** For a list to be read before the question is answered. */
  wide?: boolean;
  onClose: () => void;
}

/** A question, and nothing but a question: settings are pages. Escape and the backdrop close it. */
export function Dialog({ title, children, wide = false, onClose }: DialogProps) {
  const element = useRef<HTMLDialogElement>(null);
  const label = useId();
  useEffect(() => {
    const dialog = element.current;
    dialog?.showModal();
    return () => dialog?.close();
  }, []);
  return (
    <dialog ref={element} className="modal" aria-labelledby={label} onClose={onClose}>
      <div className={`modal-box max-h-[80vh] border border-base-300 bg-base-100 ${wide ? 'max-w-2xl' : ''}`}>
        <h2 id={label} className="mb-3 text-lg font-semibold">
          {title}
        </h2>
        {children}
      </div>
      <form method="dialog" className="modal-backdrop">
        <button tabIndex={-1}>Close</button>
      </form>
    </dialog>
  );
}
