import { useInfiniteQuery, useQuery, useQueryClient, type InfiniteData } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api, type PhotoFilter, type PhotoPage, type PhotoView } from '../../api/client'

export const keys = {
  shelf: ['shelf'] as const,
  catalog: ['catalog'] as const,
  zones: ['zones'] as const,
  outbox: ['outbox'] as const,
  designs: ['designs'] as const,
  album: (id: string) => ['album', id] as const,
  unit: (id: string) => ['unit', id] as const,
  /** Everything else that is read of one album. */
  of: (albumId: string, what: string, ...more: unknown[]) => ['of', albumId, what, ...more] as const,
  photo: (id: string) => ['photo', id] as const,
}

export const useShelf = () => useQuery({ queryKey: keys.shelf, queryFn: () => answer(api.GET('/api/albums')) })

/** Shipped with the program, never changes while it runs. */
export const useCatalog = () =>
  useQuery({ queryKey: keys.catalog, queryFn: () => answer(api.GET('/api/catalog')), staleTime: Infinity })

export const useZones = () =>
  useQuery({ queryKey: keys.zones, queryFn: () => answer(api.GET('/api/zones')), staleTime: Infinity })

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

/** The patterns an album repeats. */
export const useFormulas = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'formulas')),
    queryFn: () => answer(api.GET('/api/albums/{albumId}/formulas', { params: { path: { albumId: toValue(id) } } })),
  })

/** How the parts of a stretch stand to the formulas they follow. */
export const useFormulaStand = (
  id: MaybeRefOrGetter<string>,
  from: MaybeRefOrGetter<string | undefined>,
  count: MaybeRefOrGetter<number>,
) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'stand', toValue(from), toValue(count))),
    queryFn: () =>
      answer(
        api.GET('/api/albums/{albumId}/formulas/stand', {
          params: { path: { albumId: toValue(id) }, query: { from: toValue(from)!, count: toValue(count) } },
        }),
      ),
    enabled: computed(() => !!toValue(from)),
  })

export const useAlbum = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.album(toValue(id))),
    queryFn: () => answer(api.GET('/api/albums/{id}', { params: { path: { id: toValue(id) } } })),
  })

export const useOverview = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'overview')),
    queryFn: () => answer(api.GET('/api/albums/{id}/overview', { params: { path: { id: toValue(id) } } })),
  })

export const useCameras = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'cameras')),
    queryFn: () => answer(api.GET('/api/albums/{id}/cameras', { params: { path: { id: toValue(id) } } })),
  })

export const useCalendar = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'calendar')),
    queryFn: () => answer(api.GET('/api/albums/{id}/calendar', { params: { path: { id: toValue(id) } } })),
  })

/** What the album knows about its words: people, styles, hand, letters. */
export const useAlbumWords = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'words')),
    queryFn: () => answer(api.GET('/api/albums/{albumId}/words', { params: { path: { albumId: toValue(id) } } })),
  })

/** The words of several parts of an album, from one on, with what is missing. */
export const useWordsDue = (
  id: MaybeRefOrGetter<string>,
  from: MaybeRefOrGetter<string | undefined>,
  count: MaybeRefOrGetter<number>,
) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'due', toValue(from), toValue(count))),
    queryFn: () =>
      answer(
        api.GET('/api/albums/{albumId}/words/due', {
          params: { path: { albumId: toValue(id) }, query: { from: toValue(from)!, count: toValue(count) } },
        }),
      ),
    enabled: computed(() => !!toValue(from)),
  })

/** The leaves of the binder in their order. */
export const useLeaves = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'leaves')),
    queryFn: () => answer(api.GET('/api/albums/{albumId}/leaves', { params: { path: { albumId: toValue(id) } } })),
  })

/** Pieces against pockets, part by part. */
export const useCounts = (
  id: MaybeRefOrGetter<string>,
  from: MaybeRefOrGetter<string>,
  count: MaybeRefOrGetter<number>,
) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'count', toValue(from), toValue(count))),
    queryFn: () =>
      answer(
        api.GET('/api/albums/{albumId}/count', {
          params: { path: { albumId: toValue(id) }, query: { from: toValue(from), count: toValue(count) } },
        }),
      ),
  })

export const useSeries = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'series')),
    queryFn: () => answer(api.GET('/api/albums/{id}/series', { params: { path: { id: toValue(id) } } })),
  })

export const useKeepsakes = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'keepsakes')),
    queryFn: () => answer(api.GET('/api/albums/{id}/keepsakes', { params: { path: { id: toValue(id) } } })),
  })

/** The stories of a unit, or of the whole album. */
export const useStories = (albumId: MaybeRefOrGetter<string>, unitId: MaybeRefOrGetter<string | undefined>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'stories', toValue(unitId) ?? 'all')),
    queryFn: () =>
      answer(
        api.GET('/api/albums/{albumId}/stories', {
          params: { path: { albumId: toValue(albumId) }, query: { unitId: toValue(unitId) } },
        }),
      ),
  })

/** What to look at before the cards of a unit are printed. */
export const useFindings = (albumId: MaybeRefOrGetter<string>, unitId: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'findings', toValue(unitId))),
    queryFn: () => answer(api.GET('/api/units/{id}/words/findings', { params: { path: { id: toValue(unitId) } } })),
  })

export const usePhoto = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.photo(toValue(id))),
    queryFn: () => answer(api.GET('/api/photos/{id}', { params: { path: { id: toValue(id) } } })),
    enabled: computed(() => toValue(id) !== ''),
  })

/** An album's pictures in the order of time, read stretch by stretch as they are scrolled to. */
export const usePhotoPages = (albumId: MaybeRefOrGetter<string>, filter: MaybeRefOrGetter<PhotoFilter>) =>
  useInfiniteQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'photos', toValue(filter))),
    queryFn: ({ pageParam }) =>
      answer(
        api.GET('/api/albums/{albumId}/photos', {
          params: {
            path: { albumId: toValue(albumId) },
            query: { ...toValue(filter), ...(pageParam ? { After: pageParam } : {}) },
          },
        }),
      ),
    initialPageParam: '',
    getNextPageParam: (page) => page.next ?? undefined,
  })

/** Reads everything of an album anew after something came in or moved. */
export function useRefresh() {
  const client = useQueryClient()
  return (albumId: string) =>
    Promise.all([
      client.invalidateQueries({ queryKey: keys.album(albumId) }),
      client.invalidateQueries({ queryKey: ['of', albumId] }),
      client.invalidateQueries({ queryKey: ['unit'] }),
      client.invalidateQueries({ queryKey: ['photo'] }),
      client.invalidateQueries({ queryKey: keys.shelf }),
    ])
}

/** Whether a list that is read with a filter shows a picture, as far as its marks decide. */
export function shows(filter: PhotoFilter, photo: PhotoView): boolean {
  if (filter.Verdict ? photo.verdict !== filter.Verdict : false) return false
  if (filter.Favourite && photo.favourite < filter.Favourite) return false
  return (photo.verdict === 'leave') === (filter.Scope === 'leftOut')
}

type PhotoList = InfiniteData<PhotoPage>

/** A list with pictures as they are marked now; null when one that it does not have yet belongs into it. */
export function marked(list: PhotoList, filter: PhotoFilter, photos: PhotoView[]): PhotoList | null {
  const now = new Map(photos.map((p) => [p.id, p]))
  const had = new Set(list.pages.flatMap((page) => page.photos.map((p) => p.id)))
  if (photos.some((p) => shows(filter, p) && !had.has(p.id))) return null
  return {
    ...list,
    pages: list.pages.map((page) => ({
      ...page,
      photos: page.photos.map((p) => now.get(p.id) ?? p).filter((p) => !now.has(p.id) || shows(filter, p)),
    })),
  }
}

/**
 * Puts marked pictures into the lists that show them, however long those are, and reads anew only what counts them.
 */
export function useMarked() {
  const client = useQueryClient()
  return (albumId: string, photos: PhotoView[]) => {
    const stale = new Set<string>()
    for (const { queryKey, queryHash } of client.getQueryCache().findAll({ queryKey: keys.of(albumId, 'photos') })) {
      const list = client.getQueryData<PhotoList>(queryKey)
      const fresh = list && marked(list, queryKey[3] as PhotoFilter, photos)
      if (fresh) client.setQueryData(queryKey, fresh)
      else stale.add(queryHash)
    }
    return Promise.all([
      client.invalidateQueries({ queryKey: keys.album(albumId) }),
      client.invalidateQueries({
        queryKey: ['of', albumId],
        predicate: (q) => q.queryKey[2] !== 'photos' || stale.has(q.queryHash),
      }),
      client.invalidateQueries({ queryKey: ['unit'] }),
      client.invalidateQueries({ queryKey: ['photo'] }),
    ])
  }
}
