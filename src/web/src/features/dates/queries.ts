import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api } from '../../api/client'
import { keys } from '../../shared/queries'

export const useZones = () =>
  useQuery({ queryKey: keys.zones, queryFn: () => answer(api.GET('/api/zones')), staleTime: Infinity })

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
