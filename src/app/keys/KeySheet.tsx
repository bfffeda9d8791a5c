import { Dialog } from '../ui/Dialog';
import { actKeys, otherKeys } from './keys';

/** All keys on one sheet. */
export function KeySheet({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" wide onClose={onClose}>
      <div className="grid gap-x-8 sm:grid-cols-2">
        {[actKeys, otherKeys].map((list, column) => (
          <dl key={column} className="grid auto-rows-min grid-cols-[4.5rem_1fr] gap-y-1.5">
            {list.map(({ shown, what }) => (
              <div key={shown} className="contents">
                <dt>
                  <kbd className="key">{shown}</kbd>
                </dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
        ))}
      </div>
      <p className="quiet mt-4 text-sm">On a Mac, Ctrl is Cmd. Acts go to what is ticked, else to the open message.</p>
      <div className="mt-3 flex justify-end">
        <button className="btn btn-sm" onClick={onClose}>
          Close
        </button>
      </div>
    </Dialog>
  );
}
