import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api } from '../../api/client'
import { keys } from '../../shared/queries'

/** What to look at in some units in a row, or in the whole album when none are named. */
export const useLookOver = (
  albumId: MaybeRefOrGetter<string>,
  scope: MaybeRefOrGetter<{ from?: string; until?: string }>,
  enabled: MaybeRefOrGetter<boolean> = true,
) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'look-over', toValue(scope).from, toValue(scope).until)),
    queryFn: () =>
      answer(
        api.GET('/api/albums/{id}/findings', {
          params: { path: { id: toValue(albumId) }, query: toValue(scope) },
        }),
      ),
    enabled: computed(() => toValue(enabled)),
  })

/** How the spreads of a unit weigh. */
export const useBalance = (unit: MaybeRefOrGetter<{ id: string; revision: number }>) =>
  useQuery({
    queryKey: computed(() => ['unit', toValue(unit).id, 'balance', toValue(unit).revision]),
    queryFn: () => answer(api.GET('/api/units/{id}/balance', { params: { path: { id: toValue(unit).id } } })),
  })
