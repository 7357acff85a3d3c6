import { useQueryClient } from '@tanstack/vue-query'

export const keys = {
  shelf: ['shelf'] as const,
  catalog: ['catalog'] as const,
  zones: ['zones'] as const,
  outbox: ['outbox'] as const,
  designs: ['designs'] as const,
  /** What is in stock for all albums. */
  stash: ['stash'] as const,
  album: (id: string) => ['album', id] as const,
  unit: (id: string) => ['unit', id] as const,
  /** Everything else that is read of one album. */
  of: (albumId: string, what: string, ...more: unknown[]) => ['of', albumId, what, ...more] as const,
  photo: (id: string) => ['photo', id] as const,
}

/** Reads everything of an album anew after something came in or moved. */
export function useRefresh() {
  const client = useQueryClient()
  return (albumId: string) =>
    Promise.all([
      client.invalidateQueries({ queryKey: keys.album(albumId) }),
      client.invalidateQueries({ queryKey: ['of', albumId] }),
      client.invalidateQueries({ queryKey: ['unit'] }),
      client.invalidateQueries({ queryKey: ['photo'] }),
      client.invalidateQueries({ queryKey: keys.stash }),
      client.invalidateQueries({ queryKey: keys.shelf }),
    ])
}
