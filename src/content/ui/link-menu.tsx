'use client';

import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import type { Editor } from '@tiptap/react';
import { Link2 } from 'lucide-react';
import { isSafeHref } from '@/core/addresses';
import { Button } from '@/kit/button';
import { desk } from '@/words/desk';
import { ItemSearch } from './item-search';

/** An address as people type it: without its beginning, it is on the web. */
const completed = (typed: string): string =>
  /^[a-z0-9-]+(\.[a-z0-9-]+)+([/?#].*)?$/i.test(typed)
    ? `https://${typed}`
    : /^[^\s@/]+@[^\s@]+\.[^\s@]+$/.test(typed)
      ? `mailto:${typed}`
      : typed;

/** Makes what is selected a link: to an item, which is found by its title, or to an address. */
export function LinkMenu({ editor, canFind }: { editor: Editor; canFind: boolean }) {
  const { href } = editor.getAttributes('link') as { href?: string };
  const set = (to: { href: string; item: string | null }): void => {
    const chain = editor.chain().focus().extendMarkRange('link');
    if (editor.state.selection.empty && !editor.isActive('link'))
      chain.insertContent({ type: 'text', text: to.href, marks: [{ type: 'link', attrs: to }] }).run();
    else chain.setLink(to).run();
  };
  const typedAs = (typed: string, close: () => void) => {
    const address = completed(typed);
    if (!isSafeHref(address)) return null;
    return {
      words: desk('desk-content.link-to', { address }),
      onChoose: () => {
        set({ href: address, item: null });
        close();
      },
    };
  };
  return (
    <Popover>
      <PopoverButton
        data-link-menu
        title={desk('desk-content.link-key')}
        aria-label={desk('desk-content.link')}
        aria-pressed={editor.isActive('link')}
        className="grid size-9 place-items-center rounded hover:bg-sunken aria-pressed:bg-sunken aria-pressed:text-spruce"
      >
        <Link2 className="size-4.5" aria-hidden />
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom start', gap: 4, padding: 12 }}
        className="z-20 grid w-96 max-w-[calc(100vw-24px)] gap-3 rounded-lg border border-line bg-surface p-4 shadow-lg focus:outline-none"
        focus
      >
        {({ close }) => (
          <>
            <p className="font-semibold">{desk('desk-content.where-does-the-link-lead')}</p>
            {href && (
              <p className="break-all text-muted">{desk('desk-content.leads-to', { address: href })}</p>
            )}
            {canFind ? (
              <ItemSearch
                label={desk('desk-content.title-or-address')}
                typedAs={(typed) => typedAs(typed, close)}
                onChoose={({ id, path }) => {
                  set({ href: path, item: id });
                  close();
                }}
              />
            ) : (
              <AddressField typedAs={(typed) => typedAs(typed, close)} />
            )}
            {href && (
              <Button
                look="quiet"
                onClick={() => {
                  editor.chain().focus().extendMarkRange('link').unsetLink().run();
                  close();
                }}
              >
                {desk('desk-content.remove-link')}
              </Button>
            )}
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}

function AddressField({ typedAs }: { typedAs: (typed: string) => { onChoose: () => void } | null }) {
  return (
    <input
      autoFocus
      aria-label={desk('desk-content.address')}
      placeholder={desk('desk-content.address')}
      className="w-full rounded-md border border-edge/70 bg-surface px-3 py-2"
      onKeyDown={(event) => {
        if (event.key !== 'Enter') return;
        // Enter would send the form around it.
        event.preventDefault();
        typedAs(event.currentTarget.value.trim())?.onChoose();
      }}
    />
  );
}
