'use client';

import { EditorContent, useEditor, type Editor } from '@tiptap/react';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import StarterKit from '@tiptap/starter-kit';
import clsx from 'clsx';
import {
  Bold,
  KeyRound,
  Heading2,
  Heading3,
  Italic,
  Link2,
  List,
  ListOrdered,
  Quote,
  Redo2,
  Undo2,
  type LucideIcon,
} from 'lucide-react';
import { useId, useReducer } from 'react';
import type { Prose } from '@/core/content/prose';
import { JoinButton, JoinPanel } from './join-nodes';
import { SectionMenu } from './section-menu';
import { sectionMark, sectionNode, type Gates } from './section-nodes';
import { isSafeHref } from '@/core/addresses';
import { desk } from '@/words/desk';

type Tool = {
  name: string;
  icon: LucideIcon;
  is?: (editor: Editor) => boolean;
  run: (editor: Editor) => void;
};

const TOOLS: Tool[] = [
  {
    name: desk('desk-content.heading'),
    icon: Heading2,
    is: (e) => e.isActive('heading', { level: 2 }),
    run: (e) => e.chain().focus().toggleHeading({ level: 2 }).run(),
  },
  {
    name: desk('desk-content.smaller-heading'),
    icon: Heading3,
    is: (e) => e.isActive('heading', { level: 3 }),
    run: (e) => e.chain().focus().toggleHeading({ level: 3 }).run(),
  },
  {
    name: desk('desk-content.bold'),
    icon: Bold,
    is: (e) => e.isActive('bold'),
    run: (e) => e.chain().focus().toggleBold().run(),
  },
  {
    name: desk('desk-content.italic'),
    icon: Italic,
    is: (e) => e.isActive('italic'),
    run: (e) => e.chain().focus().toggleItalic().run(),
  },
  {
    name: desk('desk-content.list'),
    icon: List,
    is: (e) => e.isActive('bulletList'),
    run: (e) => e.chain().focus().toggleBulletList().run(),
  },
  {
    name: desk('desk-content.numbered-list'),
    icon: ListOrdered,
    is: (e) => e.isActive('orderedList'),
    run: (e) => e.chain().focus().toggleOrderedList().run(),
  },
  {
    name: desk('desk-content.quotation'),
    icon: Quote,
    is: (e) => e.isActive('blockquote'),
    run: (e) => e.chain().focus().toggleBlockquote().run(),
  },
  { name: desk('desk-content.link'), icon: Link2, is: (e) => e.isActive('link'), run: toggleLink },
  { name: desk('desk-content.undo'), icon: Undo2, run: (e) => e.chain().focus().undo().run() },
  { name: desk('desk-content.redo'), icon: Redo2, run: (e) => e.chain().focus().redo().run() },
];

function toggleLink(editor: Editor): void {
  if (editor.isActive('link')) return void editor.chain().focus().unsetLink().run();
  const href = window.prompt(desk('desk-content.where-does-the-link-lead'));
  if (href && isSafeHref(href)) editor.chain().focus().setLink({ href }).run();
}

function withoutSections(html: string): string {
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  for (const section of body.querySelectorAll('[data-gate]')) section.remove();
  return body.innerHTML;
}

/** What a join button or a join panel in the text can lead to. */
export type Joinables = { tiers: { id: string; name: string }[]; offers: { id: string; name: string }[] };

type Props = {
  label: string;
  initial: Prose;
  onChange: (document: Prose) => void;
  joinables?: Joinables;
  /** What sections can be opened by; without it, the text has none. */
  gates?: Gates;
  /** A few lines rather than a page. */
  isSmall?: boolean;
};

export function RichTextEditor({ label, initial, onChange, joinables, gates, isSmall = false }: Props) {
  const id = useId();
  const [, redraw] = useReducer((n: number) => n + 1, 0);
  const editor = useEditor({
    extensions: [
      StarterKit.configure({ heading: { levels: [2, 3, 4] }, link: { openOnClick: false } }),
      JoinButton,
      JoinPanel,
      ...(gates ? [sectionNode(gates), sectionMark(gates)] : []),
    ],
    content: initial.content.length > 0 ? initial : '',
    immediatelyRender: false,
    injectCSS: false,
    editorProps: {
      // A closed part that is pasted where there are no sections would be open there.
      ...(!gates && { transformPastedHTML: withoutSections }),
      attributes: {
        class: clsx(
          'prose px-4 py-3 focus:outline-none whitespace-pre-wrap',
          isSmall ? 'min-h-20 text-base' : 'min-h-64',
        ),
        role: 'textbox',
        'aria-multiline': 'true',
        'aria-labelledby': id,
      },
    },
    // Attributes of the editor's nodes have no prototype, and what is sent to an action must be plain.
    onUpdate: ({ editor: changed }) => onChange(JSON.parse(JSON.stringify(changed.getJSON())) as Prose),
    onTransaction: redraw,
  });
  return (
    <div>
      <p id={id} className="mb-1 font-semibold">
        {label}
      </p>
      <div className="rounded-md border border-edge/60 bg-surface focus-within:border-brass">
        <div
          role="toolbar"
          aria-label={desk('desk-content.formatting')}
          className="flex flex-wrap gap-0.5 border-b border-line p-1"
        >
          {TOOLS.filter((tool) => !isSmall || !tool.name.includes('eading')).map(
            ({ name, icon: Icon, is, run }) => (
              <button
                key={name}
                type="button"
                title={name}
                aria-label={name}
                aria-pressed={editor && is ? is(editor) : undefined}
                disabled={!editor}
                onClick={() => editor && run(editor)}
                className={clsx(
                  'grid size-9 place-items-center rounded hover:bg-sunken',
                  editor && is?.(editor) && 'bg-sunken text-spruce',
                )}
              >
                <Icon className="size-4.5" aria-hidden />
              </button>
            ),
          )}
          {editor && joinables && joinables.offers.length > 0 && (
            <JoinMenu editor={editor} joinables={joinables} />
          )}
          {editor && gates && <SectionMenu editor={editor} gates={gates} />}
        </div>
        <div className={isSmall ? 'min-h-24' : 'min-h-70'}>
          <EditorContent editor={editor} />
        </div>
      </div>
    </div>
  );
}

function JoinMenu({ editor, joinables }: { editor: Editor; joinables: Joinables }) {
  const insert = (type: string, attrs: Record<string, unknown>): void => {
    // Behind the block in which the cursor is: a block that is selected as a whole would be replaced.
    const { $to } = editor.state.selection;
    const behind = $to.depth > 0 ? $to.after(1) : $to.pos;
    editor.chain().focus().insertContentAt(behind, { type, attrs }).run();
  };
  const entries = [
    {
      key: 'all',
      words: desk('desk-content.panel-with-every-tier-of'),
      run: () => insert('joinPanel', { tiers: [] }),
    },
    ...joinables.tiers.map(({ id, name }) => ({
      key: `tier:${id}`,
      words: desk('desk-content.panel-with', { name }),
      run: () => insert('joinPanel', { tiers: [id] }),
    })),
    ...joinables.offers.map(({ id, name }) => ({
      key: `offer:${id}`,
      words: desk('desk-content.button', { name }),
      run: () => insert('joinButton', { offer: id, label: desk('desk-content.join', { name }).slice(0, 60) }),
    })),
  ];
  return (
    <Menu>
      <MenuButton className="inline-flex h-9 items-center gap-1.5 rounded px-2 font-semibold hover:bg-sunken">
        <KeyRound className="size-4.5" aria-hidden /> {desk('desk-content.join-label')}
      </MenuButton>
      <MenuItems
        anchor="bottom start"
        className="z-20 mt-1 max-h-80 overflow-y-auto rounded-lg border border-line bg-surface p-1 shadow-lg focus:outline-none"
      >
        {entries.map(({ key, words, run }) => (
          <MenuItem key={key}>
            <button
              type="button"
              onClick={run}
              className="block w-full rounded px-3 py-1.5 text-left data-focus:bg-sunken"
            >
              {words}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
