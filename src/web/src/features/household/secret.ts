import { useEventListener } from '@vueuse/core'

/**
 * The secret of a private link, which stands after the # and so is in no log. Another link in the same window is
 * another person's: the page begins anew with it.
 */
export function useSecret(): string {
  useEventListener(window, 'hashchange', () => window.location.reload())
  return window.location.hash.slice(1)
}
