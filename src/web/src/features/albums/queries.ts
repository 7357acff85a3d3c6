import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api } from '../../api/client'
import { keys } from '../../shared/queries'

export const useShelf = () => useQuery({ queryKey: keys.shelf, queryFn: () => answer(api.GET('/api/albums')) })

export const useAlbum = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.album(toValue(id))),
    queryFn: () => answer(api.GET('/api/albums/{id}', { params: { path: { id: toValue(id) } } })),
  })

export const useOverview = (id: MaybeRefOrGetter<string>, enabled: MaybeRefOrGetter<boolean> = true) =>
  useQuery({
    enabled: computed(() => toValue(enabled)),
    queryKey: computed(() => keys.of(toValue(id), 'overview')),
    queryFn: () => answer(api.GET('/api/albums/{id}/overview', { params: { path: { id: toValue(id) } } })),
  })
