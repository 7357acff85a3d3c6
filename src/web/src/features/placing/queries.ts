import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api } from '../../api/client'
import { keys } from '../../shared/queries'

/** Priorities of the ways people work, which ship with the program. */
export const usePlacingPresets = () =>
  useQuery({
    queryKey: ['placing-presets'],
    queryFn: () => answer(api.GET('/api/placing-presets')),
    staleTime: Infinity,
  })

/** Why the pieces of a unit lie where they lie. */
export const useReasons = (unit: MaybeRefOrGetter<{ id: string; revision: number }>) =>
  useQuery({
    queryKey: computed(() => ['unit', toValue(unit).id, 'reasons', toValue(unit).revision]),
    queryFn: () => answer(api.GET('/api/units/{id}/reasons', { params: { path: { id: toValue(unit).id } } })),
  })

/** The pockets for a loose thing, best first. */
export const usePocketsFor = (
  unit: MaybeRefOrGetter<{ id: string; revision: number }>,
  key: MaybeRefOrGetter<string | null>,
) =>
  useQuery({
    queryKey: computed(() => ['unit', toValue(unit).id, 'pockets-for', toValue(key), toValue(unit).revision]),
    queryFn: () =>
      answer(
        api.GET('/api/units/{id}/pockets-for/{key}', {
          params: { path: { id: toValue(unit).id, key: toValue(key)! } },
        }),
      ),
    enabled: computed(() => !!toValue(key)),
  })

/** The loose things for an open pocket, best first. */
export const useThingsFor = (
  unit: MaybeRefOrGetter<{ id: string; revision: number }>,
  code: MaybeRefOrGetter<string>,
) =>
  useQuery({
    queryKey: computed(() => ['unit', toValue(unit).id, 'things-for', toValue(code), toValue(unit).revision]),
    queryFn: () =>
      answer(
        api.GET('/api/units/{id}/things-for', {
          params: { path: { id: toValue(unit).id }, query: { code: toValue(code) } },
        }),
      ),
  })

export const useKeepsakes = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'keepsakes')),
    queryFn: () => answer(api.GET('/api/albums/{id}/keepsakes', { params: { path: { id: toValue(id) } } })),
  })

/** Spreads in a row, as a contact sheet. */
export const useContactSheet = (
  albumId: MaybeRefOrGetter<string>,
  from: MaybeRefOrGetter<string>,
  count: MaybeRefOrGetter<number>,
) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(albumId), 'contact-sheet', toValue(from), toValue(count))),
    queryFn: () =>
      answer(
        api.GET('/api/albums/{albumId}/contact-sheet', {
          params: { path: { albumId: toValue(albumId) }, query: { from: toValue(from), count: toValue(count) } },
        }),
      ),
  })
