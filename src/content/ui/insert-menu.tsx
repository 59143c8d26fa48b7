'use client';

import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import type { Editor } from '@tiptap/react';
import { ChevronLeft, Plus } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { PANELS } from '@/core/content/page-roles';
import { MOST_PICTURE_BYTES } from '@/core/upload-bounds';
import { Button } from '@/kit/button';
import { TextField } from '@/kit/field';
import { sendFile } from '@/kit/send-file';
import { desk } from '@/words/desk';
import { FileUpload } from './file-upload';
import { ItemSearch } from './item-search';

/**
 * Puts a block behind the one in which the cursor is: a block that is selected as a whole would be replaced. The cursor
 * is in the line below it then, or within it where it holds text.
 */
export function insertBlock(editor: Editor, type: string, attrs: Record<string, unknown> = {}): void {
  put(editor, { type, attrs }, 2);
}

const cells = (type: 'tableHeader' | 'tableCell') =>
  Array.from({ length: 3 }, () => ({ type, content: [{ type: 'paragraph' }] }));

/** A table of three by three, its first row a head; the cursor is in its first cell. */
function insertTable(editor: Editor): void {
  const rows = (['tableHeader', 'tableCell', 'tableCell'] as const).map((type) => ({
    type: 'tableRow',
    content: cells(type),
  }));
  put(editor, { type: 'table', content: rows }, 4);
}

/** @param inside how far behind the beginning of the block the cursor goes */
function put(editor: Editor, block: Record<string, unknown>, inside: number): void {
  const { $to } = editor.state.selection;
  const behind = $to.depth > 0 ? $to.after(1) : $to.pos;
  const isLast = behind >= editor.state.doc.content.size;
  editor
    .chain()
    .insertContentAt(behind, isLast ? [block, { type: 'paragraph' }] : block)
    .setTextSelection(behind + inside)
    .focus()
    .run();
}

type What = 'picture' | 'file' | 'embed' | 'panel';
type Named = (id: string, title: string) => void;

/** Everything that can be put into a text beside words. `onNamed`: what an item is called that the text now leads to. */
export function InsertMenu({ editor, onNamed }: { editor: Editor; onNamed: Named }) {
  return (
    <Popover>
      <PopoverButton className="inline-flex h-9 items-center gap-1.5 rounded px-2 font-semibold hover:bg-sunken">
        <Plus className="size-4.5" aria-hidden /> {desk('desk-content.insert')}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom start', gap: 4, padding: 12 }}
        className="z-20 w-96 max-w-[calc(100vw-24px)] rounded-lg border border-line bg-surface p-2 shadow-lg focus:outline-none"
        focus
      >
        {({ close }) => <Choices editor={editor} onNamed={onNamed} onDone={close} />}
      </PopoverPanel>
    </Popover>
  );
}

function Choices({ editor, onNamed, onDone }: { editor: Editor; onNamed: Named; onDone: () => void }) {
  const [what, setWhat] = useState<What | null>(null);
  const insert = (type: string, attrs?: Record<string, unknown>): void => {
    insertBlock(editor, type, attrs);
    onDone();
  };
  if (what === null) {
    return (
      <ul className="grid">
        <Choice onPress={() => setWhat('picture')}>{desk('desk-content.picture')}</Choice>
        <Choice onPress={() => setWhat('file')}>{desk('desk-content.file')}</Choice>
        <Choice onPress={() => setWhat('embed')}>{desk('desk-content.embed')}</Choice>
        <Choice
          onPress={() => {
            insertTable(editor);
            onDone();
          }}
        >
          {desk('desk-content.table')}
        </Choice>
        <Choice onPress={() => insert('horizontalRule')}>{desk('desk-content.rule-across')}</Choice>
        <Choice onPress={() => setWhat('panel')}>{desk('desk-content.panel')}</Choice>
        <Choice onPress={() => insert('teaserEnd')}>{desk('desk-content.teaser-marker')}</Choice>
      </ul>
    );
  }
  return (
    <div className="grid gap-3 p-2">
      <button
        type="button"
        onClick={() => setWhat(null)}
        className="inline-flex w-fit items-center gap-1 text-spruce hover:underline"
      >
        <ChevronLeft className="size-4" aria-hidden /> {desk('desk-content.back')}
      </button>
      {what === 'picture' && <PictureFields onDone={(attrs) => insert('image', attrs)} />}
      {what === 'file' && (
        <>
          <ItemSearch
            label={desk('desk-content.title-or-address')}
            kind="file"
            onChoose={({ id, title }) => {
              onNamed(id, title);
              insert('file', { item: id });
            }}
          />
          <FileUpload
            onDone={({ itemId, title }) => {
              onNamed(itemId, title);
              insert('file', { item: itemId });
            }}
          />
        </>
      )}
      {what === 'panel' && (
        <ul>
          {PANELS.map((panel) => (
            <Choice key={panel} onPress={() => insert('panel', { panel })}>
              {desk(`desk-content.panel-${panel}`)}
            </Choice>
          ))}
        </ul>
      )}
      {what === 'embed' && <EmbedFields onDone={(attrs) => insert('embed', attrs)} />}
    </div>
  );
}

function Choice({ onPress, children }: { onPress: () => void; children: ReactNode }) {
  return (
    <li>
      <button
        type="button"
        onClick={onPress}
        className="w-full rounded px-3 py-1.5 text-left hover:bg-sunken"
      >
        {children}
      </button>
    </li>
  );
}

type PictureAttrs = { picture: string; alt: string; caption: string };

function PictureFields({ onDone }: { onDone: (attrs: PictureAttrs) => void }) {
  const [picture, setPicture] = useState('');
  const [alt, setAlt] = useState('');
  const [caption, setCaption] = useState('');
  const [said, setSaid] = useState('');
  const choose = async (file: File): Promise<void> => {
    if (file.size > MOST_PICTURE_BYTES) return setSaid(desk('desk-content.picture-too-large'));
    setSaid(desk('desk-content.sending-the-picture'));
    const sent = await sendFile<{ id: string }>('/desk/uploads/content-picture', file);
    setSaid(
      sent.ok ? '' : (Object.values(sent.problems)[0] ?? desk('desk-content.the-picture-could-not-be-saved')),
    );
    if (sent.ok) setPicture(sent.value.id);
  };
  return (
    <>
      {picture && (
        // oxlint-disable-next-line nextjs/no-img-element -- resized and served by ourselves
        <img
          src={`/pictures/${picture}?size=small`}
          alt=""
          className="max-h-48 w-full rounded-md object-contain"
        />
      )}
      <input
        type="file"
        aria-label={desk('desk-content.picture')}
        accept="image/jpeg,image/png,image/webp,image/avif,image/gif"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) void choose(file);
        }}
      />
      {said && (
        <p role="status" className="text-[0.9375rem]">
          {said}
        </p>
      )}
      <TextField
        name="picture.alt"
        label={desk('desk-content.alt')}
        hint={desk('desk-content.alt-hint')}
        maxLength={400}
        value={alt}
        onChange={(event) => setAlt(event.target.value)}
      />
      <TextField
        name="picture.caption"
        label={desk('desk-content.caption')}
        maxLength={400}
        value={caption}
        onChange={(event) => setCaption(event.target.value)}
      />
      <Button
        disabled={!picture}
        onClick={() => onDone({ picture, alt: alt.trim(), caption: caption.trim() })}
      >
        {desk('desk-content.put-in')}
      </Button>
    </>
  );
}

function EmbedFields({ onDone }: { onDone: (attrs: { url: string; title: string }) => void }) {
  const [url, setUrl] = useState('');
  const [title, setTitle] = useState('');
  const isFit = /^https:\/\/[^\s/]+\.[^\s]+$/.test(url.trim()) && URL.canParse(url.trim());
  return (
    <>
      <TextField
        name="embed.url"
        label={desk('desk-content.address')}
        hint={desk('desk-content.embed-hint')}
        maxLength={2000}
        value={url}
        onChange={(event) => setUrl(event.target.value)}
      />
      <TextField
        name="embed.title"
        label={desk('desk-content.embed-title')}
        maxLength={200}
        value={title}
        onChange={(event) => setTitle(event.target.value)}
      />
      <Button disabled={!isFit} onClick={() => onDone({ url: url.trim(), title: title.trim() })}>
        {desk('desk-content.put-in')}
      </Button>
    </>
  );
}
