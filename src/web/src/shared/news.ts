import { useEventListener } from '@vueuse/core'
import { onScopeDispose, ref, watch } from 'vue'
import type { NewsView } from '../api/client'

/** What is written into a field counts as not saved until something was saved or the field is gone. */
const unsaved = new Set<Element>()
const isText = (target: EventTarget | null): target is HTMLInputElement | HTMLTextAreaElement =>
  target instanceof HTMLTextAreaElement ||
  (target instanceof HTMLInputElement && !['search', 'range', 'checkbox', 'radio', 'file'].includes(target.type))

/** Whether a hand is writing: what it writes on is not read anew under it. */
export function isWriting(): boolean {
  for (const field of unsaved) if (!field.isConnected) unsaved.delete(field)
  return unsaved.size > 0 || isText(document.activeElement)
}

/** Everything that was written is saved, or was given up. */
export const allSaved = () => unsaved.clear()

/** What saves a moment after the last key, each with what saves it now. */
const pending = new Set<() => unknown>()

/**
 * Before others' changes are read, an editor that saves a moment after the last key saves on what it was written on:
 * what does not touch is merged then, and the rest is told with both sides.
 */
export function savesFirst(save: () => unknown): void {
  pending.add(save)
  onScopeDispose(() => pending.delete(save))
}

/** Saves what waits to be saved. */
export const saveFirst = () => pending.forEach((save) => save())

/** News that come within this time, in milliseconds, are read in one go. */
const together = 250

interface Heard {
  /** Reads everything of the album anew. */
  changed: () => unknown
  comments: () => unknown
  presence: () => unknown
}

/**
 * Hears what others do in an album. Of all windows of a browser that have it open one holds the line and tells the
 * rest, since a browser opens few lines to one server.
 */
export function useNews(albumId: () => string, window: string, heard: Heard) {
  /** Something has changed that is not shown yet, since a hand is writing. */
  const waiting = ref(false)
  let timer: ReturnType<typeof setTimeout> | undefined
  let close = () => {}

  function show() {
    waiting.value = false
    saveFirst()
    allSaved()
    void heard.changed()
  }
  const later = () => {
    if (isWriting()) waiting.value = true
    else show()
  }
  function take(news: NewsView) {
    if (news.window === window) return
    if (news.kind === 'comments') void heard.comments()
    else if (news.kind === 'presence') void heard.presence()
    else {
      clearTimeout(timer)
      timer = setTimeout(later, together)
    }
  }

  watch(
    albumId,
    (id) => {
      close()
      close = id ? listen(id, take) : () => {}
    },
    { immediate: true },
  )
  useEventListener(document, 'input', (event) => isText(event.target) && unsaved.add(event.target), { capture: true })
  // A field that was left as it was holds nothing back any more.
  useEventListener(document, 'focusout', () => setTimeout(() => waiting.value && !isWriting() && show(), 0))
  onScopeDispose(() => {
    clearTimeout(timer)
    close()
    allSaved()
  })
  return { waiting, show }
}

/** Opens the line to the server, or to the window that holds it; gives what closes it. */
function listen(albumId: string, take: (news: NewsView) => void): () => void {
  const name = `zesty-news-${albumId}`
  const channel = new BroadcastChannel(name)
  channel.onmessage = (event: MessageEvent<NewsView>) => take(event.data)
  const ended = new AbortController()
  const hold = () =>
    new Promise<void>((release) => {
      const line = new EventSource(`/api/albums/${albumId}/news`)
      let [opened, heard] = [false, false]
      const pass = (news: NewsView) => {
        take(news)
        channel.postMessage(news)
      }
      line.addEventListener('news', (event) => {
        const news = JSON.parse(event.data) as NewsView
        // A line that begins says so; what is on the screen was read just now.
        if (heard || news.kind !== 'lookAgain') pass(news)
        heard = true
      })
      // What happened while the line was broken was heard by nobody.
      line.onopen = () => {
        if (opened) pass({ kind: 'lookAgain', units: [], window: null })
        opened = true
      }
      // Closed by the server for good: whoever was sent away sees it when everything is read anew.
      line.onerror = () =>
        line.readyState === EventSource.CLOSED && pass({ kind: 'lookAgain', units: [], window: null })
      ended.signal.addEventListener('abort', () => {
        line.close()
        release()
      })
    })
  // Locks are there where the page is safe (TLS or this machine); elsewhere each window has a line of its own.
  if ('locks' in navigator) navigator.locks.request(name, { signal: ended.signal }, hold).catch(() => undefined)
  else void hold()
  return () => {
    ended.abort()
    channel.close()
  }
}
