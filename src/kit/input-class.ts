/** The look of every field that one types into. In a module of its own, so that server components can use it too. */
export const inputClass =
  'block w-full rounded-md border border-edge/60 bg-surface px-3 py-2 text-ink placeholder:text-muted/80 hover:border-edge aria-[invalid=true]:border-closed aria-[invalid=true]:border-2';
