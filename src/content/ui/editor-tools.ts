import type { Editor } from '@tiptap/react';
import {
  Bold,
  Code,
  Heading2,
  Heading3,
  Italic,
  List,
  ListOrdered,
  Quote,
  Redo2,
  Undo2,
  type LucideIcon,
} from 'lucide-react';
import { desk } from '@/words/desk';

export type Tool = {
  name: string;
  icon: LucideIcon;
  is?: (editor: Editor) => boolean;
  run: (editor: Editor) => void;
  /** Only where there is room for a page. */
  isLarge?: boolean;
};

export const TOOLS: Tool[] = [
  {
    name: desk('desk-content.heading'),
    icon: Heading2,
    isLarge: true,
    is: (e) => e.isActive('heading', { level: 2 }),
    run: (e) => e.chain().focus().toggleHeading({ level: 2 }).run(),
  },
  {
    name: desk('desk-content.smaller-heading'),
    icon: Heading3,
    isLarge: true,
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
  {
    name: desk('desk-content.code'),
    icon: Code,
    is: (e) => e.isActive('codeBlock'),
    run: (e) => e.chain().focus().toggleCodeBlock().run(),
    isLarge: true,
  },
  { name: desk('desk-content.undo'), icon: Undo2, run: (e) => e.chain().focus().undo().run() },
  { name: desk('desk-content.redo'), icon: Redo2, run: (e) => e.chain().focus().redo().run() },
];

/** What can be done with the table in which the cursor is. */
export const TABLE_TOOLS: { name: string; run: (editor: Editor) => void }[] = [
  { name: desk('desk-content.row-below'), run: (e) => e.chain().focus().addRowAfter().run() },
  { name: desk('desk-content.column-after'), run: (e) => e.chain().focus().addColumnAfter().run() },
  { name: desk('desk-content.delete-row'), run: (e) => e.chain().focus().deleteRow().run() },
  { name: desk('desk-content.delete-column'), run: (e) => e.chain().focus().deleteColumn().run() },
  { name: desk('desk-content.header-row'), run: (e) => e.chain().focus().toggleHeaderRow().run() },
  { name: desk('desk-content.delete-table'), run: (e) => e.chain().focus().deleteTable().run() },
];
