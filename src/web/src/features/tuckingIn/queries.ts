import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api } from '../../api/client'
import { keys } from '../../shared/queries'

/** The leaves of units in a row, with how far each piece is. */
export const useAssembly = (
  albumId: MaybeRefOrGetter<string>,
  from: MaybeRefOrGetter<string>,
  count: MaybeRefOrGetter<number>,
) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'assembly', toValue(from), toValue(count))),
    queryFn: () =>
      answer(
        api.GET('/api/albums/{albumId}/assembly', {
          params: { path: { albumId: toValue(albumId) }, query: { from: toValue(from), count: toValue(count) } },
        }),
      ),
    staleTime: 0,
  })
