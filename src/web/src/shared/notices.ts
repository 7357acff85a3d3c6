import { defineStore } from 'pinia'
import { ref } from 'vue'
import { Refusal } from '../api/client'
import { allSaved } from './news'

export interface Notice {
  text: string
  kind: 'done' | 'refused'
  /** Takes back what was done, where that is one click away. */
  undo?: () => unknown
}

export interface Conflict {
  message: string
  yours: string
  theirs: string[]
  /** Repeats the edit on the present state. */
  again: () => Promise<unknown>
}

/** What the program has to say: the last thing done or refused, and an edit that met another window's. */
export const useNotices = defineStore('notices', () => {
  const notice = ref<Notice | null>(null)
  const conflict = ref<Conflict | null>(null)

  function done(text: string, undo?: () => unknown) {
    allSaved()
    notice.value = { text, kind: 'done', undo }
  }

  function refused(error: unknown) {
    const text =
      error instanceof Refusal
        ? error.message
        : 'Something in this window went wrong. What you saved is safe; reload the page and try again.'
    notice.value = { text, kind: 'refused' }
  }

  /** What the server itself says went wrong with a job. */
  function say(problem: string) {
    notice.value = { text: problem, kind: 'refused' }
  }

  function dismiss() {
    notice.value = null
  }

  return { notice, conflict, done, refused, say, dismiss }
})
