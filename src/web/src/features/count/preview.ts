import { ref } from 'vue'
import type { LeavesAnswer } from '../../api/client'
import { useAct } from '../../shared/act'
import { useNotices } from '../../shared/notices'

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

  async function ask(call: (preview: boolean) => Promise<LeavesAnswer>) {
    const go = async () => {
      asked.value = null
      return await act(() => call(false))
    }
    try {
      const look = await call(true)
      if (look.moved.length === 0) return await go()
      asked.value = { done: look.done, changes: look.moved, go }
    } catch (error) {
      notices.refused(error)
    }
    return undefined
  }

  return { asked, ask, act }
}
