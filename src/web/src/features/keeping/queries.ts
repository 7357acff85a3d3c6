import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api } from '../../api/client'
import { keys } from '../../shared/queries'

/** Which open week is worked at first. */
export type CatchUpOrder = 'currentFirst' | 'oldestFirst' | 'alternating'

/** How thick an album is and gets. */
export const useThickness = (albumId: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'thickness')),
    queryFn: () => answer(api.GET('/api/albums/{id}/thickness', { params: { path: { id: toValue(albumId) } } })),
  })

/** What an album's materials cost. */
export const useCosts = (albumId: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'costs')),
    queryFn: () => answer(api.GET('/api/albums/{id}/costs', { params: { path: { id: toValue(albumId) } } })),
  })

/** What the year came to, and the album that could go on. */
export const useYear = (albumId: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'year')),
    queryFn: () => answer(api.GET('/api/albums/{id}/year', { params: { path: { id: toValue(albumId) } } })),
  })

/** How fast the keeper is, and the evenings until the album is caught up. */
export const usePace = (
  albumId: MaybeRefOrGetter<string>,
  order: MaybeRefOrGetter<CatchUpOrder>,
  by: MaybeRefOrGetter<string>,
) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'pace', toValue(order), toValue(by))),
    queryFn: () =>
      answer(
        api.GET('/api/albums/{id}/pace', {
          params: {
            path: { id: toValue(albumId) },
            query: { order: toValue(order), ...(toValue(by) ? { by: toValue(by) } : {}) },
          },
        }),
      ),
  })

/** Which albums are inserted into this one, and which this one is inserted into. */
export const useInsertedAlbums = (albumId: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'inserted-albums')),
    queryFn: () => answer(api.GET('/api/albums/{id}/inserted-albums', { params: { path: { id: toValue(albumId) } } })),
  })
