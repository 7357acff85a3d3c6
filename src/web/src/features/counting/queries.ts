import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api } from '../../api/client'
import { keys } from '../../shared/queries'

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
