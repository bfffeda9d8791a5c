import { Image } from '@tiptap/extension-image';
import { EditorContent, useEditor, type Editor } from '@tiptap/react';
import { StarterKit } from '@tiptap/starter-kit';
import { Bold, ImagePlus, Italic, Link as LinkIcon, List, ListOrdered, TextQuote } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { outgoingHtml, safeLink } from '../../core/writing/outgoingHtml';
import { blockNamed, typedName, type TextBlock } from '../../core/writing/textBlock';
import { Form } from '../ui/Form';
import { isPicture, pictureAddress } from './ownPictures';

/** A picture of the draft’s own. Whatever address a pasted one had, it is not shown from there. */
const Picture = Image.extend({
  addAttributes: () => ({
    cid: {
      default: null,
      parseHTML: (element: HTMLElement) => /^cid:(.+)$/.exec(element.getAttribute('src') ?? '')?.[1] ?? null,
      renderHTML: ({ cid }: { cid?: string }) => ({ src: `cid:${cid ?? ''}` }),
    },
    alt: { default: '' },
  }),
  parseHTML: () => [{ tag: 'img[src^="cid:"]' }],
  addNodeView:
    () =>
    ({ node }) => {
      const dom = document.createElement('img');
      const address = pictureAddress(String(node.attrs.cid));
      if (address !== null) dom.src = address;
      dom.alt = String(node.attrs.alt || 'Picture');
      return { dom };
    },
}).configure({ inline: true });

interface Tool {
  word: string;
  keys?: string;
  icon: typeof Bold;
  on: (editor: Editor) => boolean;
  press: (editor: Editor) => unknown;
}

const tools: readonly Tool[] = [
  {
    word: 'Bold',
    keys: 'Ctrl+B',
    icon: Bold,
    on: (e) => e.isActive('bold'),
    press: (e) => e.chain().focus().toggleBold().run(),
  },
  {
    word: 'Italic',
    keys: 'Ctrl+I',
    icon: Italic,
    on: (e) => e.isActive('italic'),
    press: (e) => e.chain().focus().toggleItalic().run(),
  },
  {
    word: 'List',
    icon: List,
    on: (e) => e.isActive('bulletList'),
    press: (e) => e.chain().focus().toggleBulletList().run(),
  },
  {
    word: 'Numbered list',
    icon: ListOrdered,
    on: (e) => e.isActive('orderedList'),
    press: (e) => e.chain().focus().toggleOrderedList().run(),
  },
  {
    word: 'Quote',
    icon: TextQuote,
    on: (e) => e.isActive('blockquote'),
    press: (e) => e.chain().focus().toggleBlockquote().run(),
  },
];

const tool = 'btn btn-square btn-ghost btn-xs aria-pressed:bg-base-300';

function LinkField({ editor, onDone }: { editor: Editor; onDone: () => void }) {
  const [address, setAddress] = useState(String(editor.getAttributes('link').href ?? ''));
  const whole = /^[\w.+-]+@[\w.-]+$/.test(address)
    ? `mailto:${address}`
    : /^[a-z]+:/i.test(address)
      ? address
      : `https://${address}`;
  const href = safeLink(whole.trim());
  const take = () => {
    const chain = editor.chain().focus().extendMarkRange('link');
    if (address.trim() === '') chain.unsetLink().run();
    else if (href && editor.state.selection.empty && !editor.isActive('link'))
      chain.insertContent({ type: 'text', text: address.trim(), marks: [{ type: 'link', attrs: { href } }] }).run();
    else if (href) chain.setLink({ href }).run();
    onDone();
  };
  return (
    <Form className="flex gap-2 px-2 py-1" onSubmit={take}>
      <input
        aria-label="Address of the link"
        className="input input-sm min-w-0 flex-1"
        autoFocus
        value={address}
        placeholder="https://…"
        onChange={(event) => setAddress(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Escape') return;
          event.stopPropagation();
          onDone();
        }}
      />
      <button className="btn btn-sm" disabled={address.trim() !== '' && href === null}>
        {address.trim() === '' ? 'Take the link off' : 'Link'}
      </button>
    </Form>
  );
}

/** Puts the block in that is named by the letters before the cursor; false where they name none. */
function putIn(editor: Editor, blocks: readonly TextBlock[]): boolean {
  const { $from, empty } = editor.state.selection;
  const typed = empty ? typedName($from.parent.textBetween(0, $from.parentOffset, undefined, ' ')) : null;
  const block = typed === null ? null : blockNamed(typed, blocks);
  if (typed === null || !block) return false;
  const range = { from: $from.pos - typed.length - 1, to: $from.pos };
  return editor.chain().focus().deleteRange(range).insertContent(outgoingHtml(block.html)).run();
}

interface ToolbarProps {
  editor: Editor;
  onLink: () => void;
  blocks: readonly TextBlock[];
  /** Null where no pictures go in. */
  onPictures: ((files: File[]) => void) | null;
}

/** What can be done to the words, and what was done to those at the cursor. */
function Toolbar({ editor, onLink, blocks, onPictures }: ToolbarProps) {
  const picker = useRef<HTMLInputElement>(null);
  // What is pressed shows where the words stand that it holds for.
  const [, look] = useState(0);
  useEffect(() => {
    const again = () => look((n) => n + 1);
    editor.on('transaction', again);
    return () => void editor.off('transaction', again);
  }, [editor]);
  return (
    <div role="toolbar" aria-label="Form of the text" className="flex flex-wrap gap-0.5 border-b border-base-300 p-1">
      {tools.map(({ word, keys, icon: Icon, on, press }) => (
        <button
          key={word}
          type="button"
          className={tool}
          aria-label={word}
          title={keys ? `${word} (${keys})` : word}
          aria-pressed={on(editor)}
          onClick={() => press(editor)}
        >
          <Icon size={15} aria-hidden />
        </button>
      ))}
      <button
        type="button"
        className={tool}
        aria-label="Link"
        title="Link"
        aria-pressed={editor.isActive('link')}
        onClick={onLink}
      >
        <LinkIcon size={15} aria-hidden />
      </button>
      {onPictures && (
        <>
          <button
            type="button"
            className={tool}
            aria-label="Picture"
            title="Picture"
            onClick={() => picker.current?.click()}
          >
            <ImagePlus size={15} aria-hidden />
          </button>
          <input
            ref={picker}
            type="file"
            hidden
            accept="image/png,image/jpeg,image/gif,image/webp"
            multiple
            aria-label="Picture from a file"
            onChange={(event) => {
              onPictures([...(event.target.files ?? [])].filter(({ type }) => isPicture(type)));
              event.target.value = '';
            }}
          />
        </>
      )}
      {blocks.length > 0 && (
        <select
          className="select w-auto select-xs"
          aria-label="Put a text block in"
          title="Or type ; and a few letters of its name, then Tab"
          value=""
          onChange={(event) => {
            const block = blocks.find(({ id }) => id === event.target.value);
            if (block) editor.chain().focus().insertContent(outgoingHtml(block.html)).run();
          }}
        >
          <option value="">Text block …</option>
          {blocks.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      )}
    </div>
  );
}

export interface RichTextProps {
  /** What it begins with; afterwards what is typed is its own. */
  html: string;
  onChange: (html: string) => void;
  /** What it is called. */
  name?: string;
  /** What can be put in by a few letters. */
  blocks?: readonly TextBlock[];
  /** Takes files that were pasted or dropped; those of pictures come back as Content-IDs to be shown. */
  onFiles?: (files: File[]) => Promise<{ contentId: string; name: string }[]>;
  onEscape?: () => void;
  /** The editor, once it is there. */
  onEditor?: (editor: Editor | null) => void;
}

/** Rich text, as any editor has it. */
export function RichText({ html, name = 'Text', blocks = [], onChange, onFiles, onEscape, onEditor }: RichTextProps) {
  const [linking, setLinking] = useState(false);
  const hear = useRef({ blocks, onChange, onFiles, onEscape });
  useEffect(() => {
    hear.current = { blocks, onChange, onFiles, onEscape };
  });
  const take = async (files: File[]) => {
    const shown = (await hear.current.onFiles?.(files)) ?? [];
    for (const { contentId, name } of shown)
      editor
        .chain()
        .focus()
        .insertContent({ type: 'image', attrs: { cid: contentId, alt: name } })
        .run();
  };
  const editor: Editor = useEditor({
    extensions: [
      StarterKit.configure({
        heading: false,
        link: {
          openOnClick: false,
          protocols: ['http', 'https', 'mailto'],
          isAllowedUri: (address) => safeLink(address) !== null,
          HTMLAttributes: { target: null, rel: null },
        },
      }),
      Picture,
    ],
    content: html,
    autofocus: false,
    injectCSS: false,
    editorProps: {
      attributes: {
        'aria-label': name,
        role: 'textbox',
        'aria-multiline': 'true',
        class: 'written min-h-40 px-3 py-2 outline-none',
        dir: 'auto',
      },
      handleKeyDown: (_view, event): boolean => {
        if (event.key === 'Tab' && !event.shiftKey) return putIn(editor, hear.current.blocks);
        if (event.key !== 'Escape' || !hear.current.onEscape) return false;
        hear.current.onEscape();
        return true;
      },
      handlePaste: (_view, event) => {
        const files = [...(event.clipboardData?.files ?? [])];
        // What comes with its text is text: some programs add a picture of it.
        if (files.length === 0 || event.clipboardData?.types.includes('text/html')) return false;
        void take(files);
        return true;
      },
      handleDrop: (_view, event) => {
        const files = [...(event.dataTransfer?.files ?? [])];
        if (files.length === 0) return false;
        event.preventDefault();
        void take(files);
        return true;
      },
    },
    onUpdate: ({ editor: written }) => hear.current.onChange(written.isEmpty ? '' : written.getHTML()),
  });
  useEffect(() => {
    onEditor?.(editor);
    return () => onEditor?.(null);
  }, [editor, onEditor]);
  return (
    <div className="flex min-h-48 flex-col rounded border border-base-300 focus-within:border-primary">
      <Toolbar
        editor={editor}
        onLink={() => setLinking(!linking)}
        blocks={blocks}
        onPictures={onFiles ? (files) => void take(files) : null}
      />
      {linking && <LinkField editor={editor} onDone={() => setLinking(false)} />}
      <EditorContent editor={editor} />
    </div>
  );
}
