'use client';

import { EditorContent, useEditor, type Editor } from '@tiptap/react';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import StarterKit from '@tiptap/starter-kit';
import clsx from 'clsx';
import { KeyRound } from 'lucide-react';
import { useId, useReducer, useRef } from 'react';
import type { Prose } from '@/core/content/prose';
import { articleNodes, ItemLink, type ItemNames } from './article-nodes';
import { cleanPaste } from './clean-paste';
import { TABLE_TOOLS, TOOLS } from './editor-tools';
import { insertBlock, InsertMenu } from './insert-menu';
import { BuyPanel, JoinButton, JoinPanel } from './join-nodes';
import { LinkMenu } from './link-menu';
import { SectionMenu } from './section-menu';
import { sectionMark, sectionNode, type Gates } from './section-nodes';
import { desk } from '@/words/desk';

/** What a join button or a join panel in the text can lead to. */
type Named = { id: string; name: string };
export type Joinables = { tiers: Named[]; offers: Named[]; products: Named[] };

type Props = {
  label: string;
  initial: Prose;
  onChange: (document: Prose) => void;
  joinables?: Joinables;
  /** What sections can be opened by; without it, the text has none. */
  gates?: Gates;
  /** What the items are called to which the text leads; without it, it has no pictures, files and tables. */
  names?: ItemNames;
  /** A few lines rather than a page. */
  isSmall?: boolean;
};

export function RichTextEditor({
  label,
  initial,
  onChange,
  joinables,
  gates,
  names,
  isSmall = false,
}: Props) {
  const id = useId();
  const frame = useRef<HTMLDivElement>(null);
  // What a file is called that was just put in; the editor draws it by its id.
  const known = useRef<ItemNames>({ ...names });
  const [, redraw] = useReducer((n: number) => n + 1, 0);
  const editor = useEditor({
    extensions: [
      StarterKit.configure({ heading: { levels: [2, 3, 4] }, link: false }),
      ItemLink,
      JoinButton,
      JoinPanel,
      BuyPanel,
      ...(gates ? [sectionNode(gates), sectionMark(gates)] : []),
      // oxlint-disable-next-line react/refs -- read when a node is drawn, not while the editor is made
      ...(names ? articleNodes(known.current) : []),
    ],
    content: initial.content.length > 0 ? initial : '',
    immediatelyRender: false,
    injectCSS: false,
    editorProps: {
      transformPastedHTML: (html) => cleanPaste(html, { hasSections: gates !== undefined }),
      handleKeyDown: (_, event) => openMenu(event, frame.current),
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
      <div ref={frame} className="rounded-md border border-edge/60 bg-surface focus-within:border-brass">
        <div
          role="toolbar"
          aria-label={desk('desk-content.formatting')}
          className="flex flex-wrap gap-0.5 border-b border-line p-1"
        >
          {TOOLS.filter((tool) => !isSmall || !tool.isLarge).map(({ name, icon: Icon, is, run }) => (
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
          ))}
          {editor && <LinkMenu editor={editor} canFind={!isSmall} />}
          {editor && names && (
            <InsertMenu
              editor={editor}
              onNamed={(item, title) => {
                known.current[item] = title;
              }}
            />
          )}
          {editor && joinables && joinables.offers.length > 0 && (
            <JoinMenu editor={editor} joinables={joinables} />
          )}
          {editor && gates && <SectionMenu editor={editor} gates={gates} />}
        </div>
        {editor?.isActive('table') && (
          <div
            className="flex flex-wrap gap-1 border-b border-line p-1"
            role="toolbar"
            aria-label={desk('desk-content.table')}
          >
            {TABLE_TOOLS.map(({ name, run }) => (
              <button
                key={name}
                type="button"
                onClick={() => run(editor)}
                className="rounded px-2 py-1 text-[0.9375rem] hover:bg-sunken"
              >
                {name}
              </button>
            ))}
          </div>
        )}
        <div className={isSmall ? 'min-h-24' : 'min-h-70'}>
          <EditorContent editor={editor} />
        </div>
      </div>
    </div>
  );
}

/** The keys that open the menus of links and sections. */
function openMenu(event: KeyboardEvent, frame: HTMLElement | null): boolean {
  if (!(event.metaKey || event.ctrlKey)) return false;
  const key = event.key.toLowerCase();
  const menu = key === 'k' && !event.shiftKey ? 'link' : key === 'l' && event.shiftKey ? 'section' : null;
  if (!menu) return false;
  event.preventDefault();
  // The Desk's find has the same key elsewhere.
  event.stopPropagation();
  // What was selected a moment ago has reached the editor by then.
  requestAnimationFrame(() => frame?.querySelector<HTMLButtonElement>(`[data-${menu}-menu]`)?.click());
  return true;
}

function JoinMenu({ editor, joinables }: { editor: Editor; joinables: Joinables }) {
  const insert = (type: string, attrs: Record<string, unknown>): void => insertBlock(editor, type, attrs);
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
    ...joinables.products.map(({ id, name }) => ({
      key: `product:${id}`,
      words: desk('desk-content.buy-panel', { product: name }),
      run: () => insert('buyPanel', { product: id }),
    })),
    ...joinables.offers.flatMap(({ id, name }) =>
      [
        { key: 'words', words: desk('desk-content.button', { name }), attrs: {} },
        { key: 'icon', words: desk('desk-content.button-icon', { name }), attrs: { icon: true } },
        { key: 'name', words: desk('desk-content.button-name', { name }), attrs: { asksName: true } },
      ].map(({ key, words, attrs }) => ({
        key: `offer:${id}:${key}`,
        words,
        run: () =>
          insert('joinButton', {
            offer: id,
            label: desk('desk-content.join', { name }).slice(0, 60),
            ...attrs,
          }),
      })),
    ),
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
