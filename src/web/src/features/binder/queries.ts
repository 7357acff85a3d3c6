import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api } from '../../api/client'
import { keys } from '../../shared/queries'

/** Shipped with the program, never changes while it runs. */
export const useCatalog = () =>
  useQuery({ queryKey: keys.catalog, queryFn: () => answer(api.GET('/api/catalog')), staleTime: Infinity })

/** Hole patterns that can be taken without measuring. */
export const useHolePatterns = () =>
  useQuery({ queryKey: ['holes'], queryFn: () => answer(api.GET('/api/hole-patterns')), staleTime: Infinity })

/** The keeper's own page designs, for all albums. */
export const useDesigns = () => useQuery({ queryKey: keys.designs, queryFn: () => answer(api.GET('/api/designs')) })

/** One leaf with all that lies on both its faces. */
export const useLeaf = (albumId: MaybeRefOrGetter<string>, leafId: MaybeRefOrGetter<string | undefined>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'leaf', toValue(leafId))),
    queryFn: () =>
      answer(
        api.GET('/api/albums/{albumId}/leaves/{leafId}', {
          params: { path: { albumId: toValue(albumId), leafId: toValue(leafId)! } },
        }),
      ),
    enabled: computed(() => !!toValue(leafId)),
  })

/** The leaves of the binder in their order. */
export const useLeaves = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'leaves')),
    queryFn: () => answer(api.GET('/api/albums/{albumId}/leaves', { params: { path: { albumId: toValue(id) } } })),
  })
