import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api } from '../../api/client'
import { keys } from '../../shared/queries'

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
