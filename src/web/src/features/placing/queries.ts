import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api } from '../../api/client'
import { keys } from '../../shared/queries'

export const useKeepsakes = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => keys.of(toValue(id), 'keepsakes')),
    queryFn: () => answer(api.GET('/api/albums/{id}/keepsakes', { params: { path: { id: toValue(id) } } })),
  })
