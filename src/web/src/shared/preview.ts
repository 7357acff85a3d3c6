import { ref } from 'vue'
import type { AlbumEditAnswer } from '../api/client'
import { useAct } from './act'
import { useNotices } from './notices'

/** Something that is about to be done to leaves, with what it would change. */
export interface Asked {
  done: string
  changes: string[]
  go: () => Promise<unknown>
}

/**
 * Does something to leaves after saying what changes sides: the same call first only looks, and what changes nothing is
 * done at once.
 */
export function usePreview(albumId: () => string) {
  const { act } = useAct(albumId)
  const notices = useNotices()
  const asked = ref<Asked | null>(null)

  async function ask(call: (preview: boolean) => Promise<AlbumEditAnswer>) {
    const go = async () => {
      asked.value = null
      return await act(() => call(false))
    }
    try {
      const look = await call(true)
      if (look.changes.length === 0) return await go()
      asked.value = { done: look.done, changes: look.changes, go }
    } catch (error) {
      notices.refused(error)
    }
    return undefined
  }

  return { asked, ask, act }
}
