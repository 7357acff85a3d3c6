import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api } from '../../api/client'

/** The keeper's printers, and what was measured of each. */
export const usePrinters = () => useQuery({ queryKey: ['printers'], queryFn: () => answer(api.GET('/api/printers')) })

/** The papers in the keeper's drawer. */
export const usePapersOnHand = () =>
  useQuery({ queryKey: ['papersOnHand'], queryFn: () => answer(api.GET('/api/papers-on-hand')) })

/** What a print left over; without a print, everything that is kept. */
export const useLeftovers = (
  job: MaybeRefOrGetter<string | undefined>,
  measures: MaybeRefOrGetter<'inches' | 'millimetres'>,
) =>
  useQuery({
    queryKey: computed(() => ['leftovers', toValue(job) ?? 'kept']),
    queryFn: () =>
      answer(api.GET('/api/leftovers', { params: { query: { job: toValue(job), measures: toValue(measures) } } })),
  })

/** The orders of an album at the lab. */
export const useLabOrders = (albumId: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => ['of', toValue(albumId), 'lab']),
    queryFn: () =>
      answer(api.GET('/api/albums/{albumId}/lab-orders', { params: { path: { albumId: toValue(albumId) } } })),
  })
