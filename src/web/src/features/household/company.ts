import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { computed, onScopeDispose, ref, watch } from 'vue'
import { answer, api, windowId, type CompanionView } from '../../api/client'
import { useNews } from '../../shared/news'
import { keys, useRefresh } from '../../shared/queries'
import { useMe } from './queries'

/** A window says this often that it is there, in milliseconds. */
const beat = 15_000

/** Who else is at an album and what they do there. */
export function useCompany(albumId: () => string, unitId: () => string) {
  const client = useQueryClient()
  const refresh = useRefresh()
  const { data: me } = useMe()
  const signedIn = computed(() => me.value?.state === 'signedIn')
  const others = ref<CompanionView[]>([])

  async function beHere() {
    if (!signedIn.value || !albumId()) return
    try {
      others.value = await answer(
        api.PUT('/api/albums/{albumId}/presence', {
          params: { path: { albumId: albumId() } },
          body: { windowId, unitId: unitId() || null },
        }),
      )
    } catch {
      // Who is where is no reason to disturb anybody: it is asked again soon.
      others.value = []
    }
  }
  const { waiting, show } = useNews(albumId, windowId, {
    changed: () => refresh(albumId()),
    comments: () => client.invalidateQueries({ queryKey: keys.of(albumId(), 'comments') }),
    presence: beHere,
  })
  watch([albumId, unitId, signedIn], beHere, { immediate: true })
  useIntervalFn(() => document.visibilityState === 'visible' && void beHere(), beat)
  const leave = () => {
    if (signedIn.value && albumId())
      void fetch(`/api/albums/${albumId()}/presence/${windowId}`, { method: 'DELETE', keepalive: true })
  }
  useEventListener(window, 'pagehide', leave)
  onScopeDispose(leave)

  const comments = useQuery({
    queryKey: computed(() => keys.of(albumId(), 'comments')),
    queryFn: () =>
      answer(api.GET('/api/albums/{albumId}/comments', { params: { path: { albumId: albumId() }, query: {} } })),
    enabled: computed(() => signedIn.value && albumId() !== ''),
  })
  return { signedIn, others, comments: comments.data, waiting, show }
}
