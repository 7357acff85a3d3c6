import { useInfiniteQuery, useQuery, useQueryClient, type InfiniteData } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api, type PhotoFilter, type PhotoPage, type PhotoView } from '../../api/client'
import { keys } from '../../shared/queries'

export const useSeries = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'series')),
    queryFn: () => answer(api.GET('/api/albums/{id}/series', { params: { path: { id: toValue(id) } } })),
  })

export const useVideos = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'videos')),
    queryFn: () => answer(api.GET('/api/albums/{albumId}/videos', { params: { path: { albumId: toValue(id) } } })),
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
