import { useMemo, useRef, useState } from 'react';
import { writeMailto } from '../state/drafts';
import { useSought } from '../ui/Marked';
import { markIn } from './markIn';
import { cleanHtml, frameDocument } from './cleanHtml';
import { frameSandbox } from './framePolicy';

interface HtmlBodyProps {
  html: string;
  pictures: Record<string, string>;
  /** Links lead nowhere, and say where they would go. */
  dead: boolean;
}

/** An HTML body, cleaned, in a frame that runs nothing and fetches nothing. */
export function HtmlBody({ html, pictures, dead }: HtmlBodyProps) {
  const { source, remotePictures } = useMemo(() => {
    const clean = cleanHtml(html, pictures, dead);
    return { source: frameDocument(clean.html), remotePictures: clean.remotePictures };
  }, [html, pictures, dead]);
  const sought = useSought('text');
  const frame = useRef<HTMLIFrameElement>(null);
  const [height, setHeight] = useState(200);

  const loaded = () => {
    const inside = frame.current?.contentDocument;
    if (!inside) return;
    markIn(inside, sought);
    const measure = () => setHeight(Math.min(20_000, Math.max(80, inside.body.scrollHeight + 28)));
    measure();
    // Quotes that are unfolded need room. The event does not bubble, so it is caught on its way down.
    inside.addEventListener('toggle', measure, { capture: true });
    // A link that writes to somebody begins a draft here.
    inside.addEventListener('click', (event) => {
      // The frame’s elements are of another window: what they can do is asked, not what they are.
      const link = (event.target as Element | null)?.closest?.('a[href]');
      const href = link?.getAttribute('href') ?? '';
      if (!/^mailto:/i.test(href)) return;
      event.preventDefault();
      writeMailto(href);
    });
    // A key pressed in the message is meant for the desk.
    inside.addEventListener('keydown', (event) => {
      const { key, ctrlKey, metaKey, shiftKey, altKey, repeat } = event;
      const told = { key, ctrlKey, metaKey, shiftKey, altKey, repeat, bubbles: true, cancelable: true };
      frame.current?.dispatchEvent(new KeyboardEvent('keydown', told));
    });
  };

  return (
    <>
      {remotePictures > 0 && (
        <p className="mb-2 border-l-4 border-accent bg-base-200 px-3 py-1 text-sm">
          {remotePictures === 1 ? 'One picture was' : `${remotePictures} pictures were`} not fetched: it would tell the
          sender that you read this.
        </p>
      )}
      <iframe
        ref={frame}
        title="Message text"
        sandbox={frameSandbox}
        srcDoc={source}
        onLoad={loaded}
        style={{ height }}
        className="w-full rounded border border-base-300 bg-white"
      />
    </>
  );
}
