import { useQueryClient, type QueryKey } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useNotices } from './notices'

/**
 * One thing at a time that changes what is shown: whoever asks meanwhile is not heard, what it touches is read anew
 * after it, and what was refused is told.
 */
export function useBusy(touched?: () => QueryKey) {
  const notices = useNotices()
  const client = useQueryClient()
  const busy = ref(false)

  /** What is done is told with `done`, or with the words that it gives. */
  async function run(what: () => Promise<unknown>, done = ''): Promise<void> {
    if (busy.value) return
    busy.value = true
    try {
      const said = await what()
      if (touched) await client.invalidateQueries({ queryKey: touched() })
      const told = done || (typeof said === 'string' ? said : '')
      if (told) notices.done(told)
    } catch (refused) {
      notices.refused(refused)
    } finally {
      busy.value = false
    }
  }
  return { busy, run }
}
