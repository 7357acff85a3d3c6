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

/** The album's pages in their order, and which of them lie open together. */
export const usePages = (albumId: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'pages')),
    queryFn: () => answer(api.GET('/api/albums/{id}/pages', { params: { path: { id: toValue(albumId) } } })),
  })

/** How colourful a spread is, and what would make it calmer, painted before and after. */
export const useColours = (
  unit: MaybeRefOrGetter<{ id: string; revision: number }>,
  spread: MaybeRefOrGetter<number>,
  enabled: MaybeRefOrGetter<boolean>,
) =>
  useQuery({
    queryKey: computed(() => ['unit', toValue(unit).id, 'colours', toValue(unit).revision, toValue(spread)]),
    queryFn: () =>
      answer(
        api.GET('/api/units/{id}/colours', {
          params: { path: { id: toValue(unit).id }, query: { spread: toValue(spread) } },
        }),
      ),
    enabled: computed(() => toValue(enabled)),
    retry: false,
  })
