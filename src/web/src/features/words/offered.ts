import type { StyleView } from '../../api/client'

/** The styles offered for something new of a kind, and the one it has already, offered or not. */
export const offered = (styles: StyleView[] | undefined, kind: StyleView['kinds'][number], has?: string | null) =>
  (styles ?? []).filter((s) => s.kinds.includes(kind) && (s.offered || s.key === has))
