import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api } from '../../api/client'

export const keys = {
  shelf: ['shelf'] as const,
  catalog: ['catalog'] as const,
  album: (id: string) => ['album', id] as const,
  waiting: (albumId: string) => ['waiting', albumId] as const,
  unit: (id: string) => ['unit', id] as const,
}

export const useShelf = () => useQuery({ queryKey: keys.shelf, queryFn: () => answer(api.GET('/api/albums')) })

/** Shipped with the program, never changes while it runs. */
export const useCatalog = () =>
  useQuery({ queryKey: keys.catalog, queryFn: () => answer(api.GET('/api/catalog')), staleTime: Infinity })

export const useAlbum = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.album(toValue(id))),
    queryFn: () => answer(api.GET('/api/albums/{id}', { params: { path: { id: toValue(id) } } })),
  })

export const useWaitingPhotos = (albumId: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.waiting(toValue(albumId))),
    queryFn: () =>
      answer(api.GET('/api/albums/{albumId}/photos/waiting', { params: { path: { albumId: toValue(albumId) } } })),
  })

/** Reads everything of an album anew after something came in or moved. */
export function useRefresh() {
  const client = useQueryClient()
  return (albumId: string) =>
    Promise.all([
      client.invalidateQueries({ queryKey: keys.album(albumId) }),
      client.invalidateQueries({ queryKey: keys.waiting(albumId) }),
      client.invalidateQueries({ queryKey: ['unit'] }),
      client.invalidateQueries({ queryKey: keys.shelf }),
    ])
}
