import { useTimeoutFn } from '@vueuse/core'
import {
  computed,
  nextTick,
  onScopeDispose,
  reactive,
  ref,
  shallowReactive,
  toRaw,
  watch,
  type WritableComputedRef,
} from 'vue'
import { savesFirst } from './news'

interface Typing<T extends Record<string, unknown>> {
  /** Names the thing that is written: what is typed into another one is another draft. */
  key: () => string
  /** What the server says of it. */
  server: () => T
  /** Grows with every change; an older answer that comes in late is passed over. */
  revision?: () => number
  /**
   * Sends what was typed into a thing; false when it was refused and is to stay in the fields. Without it nothing is
   * sent by itself: what is typed stays until it is discarded.
   */
  save?: (fields: T, changed: (keyof T)[], key: string) => Promise<boolean>
  /** Milliseconds after the last key; 0 sends at once. */
  wait?: number
}

const storage = 'zesty-typed '
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)
const copy = <V>(value: V): V => (value === undefined ? value : (JSON.parse(JSON.stringify(toRaw(value))) as V))

/** A field as it is kept in the browser: what was typed, and what the server had when that was begun. */
interface Kept {
  typed: unknown
  on: unknown
}

/**
 * Fields of one thing that a hand writes in. What is typed stands in the window at once and is kept there (over a
 * reload too) until the server has it; it goes out one edit after another and is never replaced under the hand: only
 * fields that hold nothing unsaved take what the server says. A refusal leaves the words where they are; so does a
 * change that somebody else has made of the same field meanwhile: nothing is written over it until the hand says so.
 */
export function useTyped<T extends Record<string, unknown>>(typing: Typing<T>) {
  const fields = reactive({ ...copy(typing.server()) }) as T
  const unsaved: Set<keyof T> = shallowReactive(new Set())
  /** The last saving was refused or lost: what was typed stands here alone. */
  const failed = ref(false)
  /** What the server had of each unsaved field when a hand began to write in it. */
  const on = new Map<keyof T, unknown>()
  let newest = typing.revision?.() ?? 0
  let current = typing.key()
  let running: Promise<boolean> | undefined
  const pause = useTimeoutFn(
    () => void flush(),
    () => typing.wait ?? 700,
    { immediate: false },
  )

  function keep() {
    try {
      if (unsaved.size === 0) localStorage.removeItem(storage + current)
      else {
        const kept = Object.fromEntries(
          [...unsaved].map((name) => [name, { typed: fields[name], on: on.get(name) } satisfies Kept]),
        )
        localStorage.setItem(storage + current, JSON.stringify(kept))
      }
    } catch {
      // A browser that keeps nothing still holds it in the fields.
    }
  }

  /** What a window that was closed had not sent. */
  function takeUp() {
    const kept = readKept<T>(current)
    for (const [name, was] of Object.entries(kept) as [keyof T, Kept][]) {
      if (!(name in fields) || same(was.typed, fields[name])) continue
      fields[name] = was.typed as T[keyof T]
      unsaved.add(name)
      on.set(name, was.on)
    }
    if (unsaved.size) pause.start()
    else keep()
  }

  /** Somebody else has changed what is written in here. */
  const isOvertaken = () => [...unsaved].some((name) => !same(on.get(name), typing.server()[name]))

  /** The server has a field as it is typed: it was saved, and the answer was lost. */
  function dropSaved() {
    for (const name of [...unsaved]) if (same(fields[name], typing.server()[name])) unsaved.delete(name)
  }

  function type<K extends keyof T>(name: K, value: T[K]) {
    if (!unsaved.has(name)) on.set(name, copy(typing.server()[name]))
    fields[name] = value
    unsaved.add(name)
    keep()
    pause.start()
  }

  /** Sends what stands here, also over what somebody else has written meanwhile. */
  function again(): Promise<boolean> {
    for (const name of unsaved) on.set(name, copy(typing.server()[name]))
    return flush()
  }

  /** Sends what waits, after what is on its way; true when the server has everything. */
  function flush(): Promise<boolean> {
    pause.stop()
    return (running ??= send().finally(() => (running = undefined)))
  }

  async function send(): Promise<boolean> {
    while (unsaved.size && typing.save) {
      dropSaved()
      if (unsaved.size === 0) break
      if (isOvertaken()) {
        failed.value = true
        return false
      }
      const [of, names, sent] = [current, [...unsaved], copy(fields)]
      const saved = await typing.save(sent, names, of)
      // Meanwhile the hand may have gone on, or to another thing.
      if (of !== current) return saved
      failed.value = !saved
      if (!saved) return false
      // What it brought is on the screen now; the server may have tidied it.
      await nextTick()
      for (const name of names) {
        if (same(fields[name], sent[name])) unsaved.delete(name)
        else on.set(name, copy(typing.server()[name]))
      }
      keep()
    }
    failed.value = false
    keep()
    return true
  }

  watch(
    typing.key,
    (key) => {
      // What was typed into the thing before goes out as its own.
      const before = current
      if (unsaved.size && typing.save && !failed.value)
        void typing.save(copy(fields), [...unsaved], before).then((saved) => saved && forget(before))
      current = key
      pause.stop()
      running = undefined
      unsaved.clear()
      failed.value = false
      newest = typing.revision?.() ?? 0
      Object.assign(fields, copy(typing.server()))
      takeUp()
    },
    { flush: 'sync' },
  )
  watch(
    () => JSON.stringify([typing.server(), typing.revision?.()]),
    () => {
      const revision = typing.revision?.() ?? newest
      if (typing.key() !== current || revision < newest) return
      newest = revision
      const fresh = copy(typing.server())
      for (const name of Object.keys(fresh) as (keyof T)[]) if (!unsaved.has(name)) fields[name] = fresh[name]
    },
  )
  savesFirst(() => unsaved.size && flush())
  onScopeDispose(() => void flush())
  takeUp()

  /** A field for `v-model`. */
  const model = <K extends keyof T>(name: K): WritableComputedRef<T[K]> =>
    computed({ get: () => fields[name], set: (value) => type(name, value) })

  /** Gives up what was not saved, for what the server has. */
  function discard() {
    pause.stop()
    unsaved.clear()
    failed.value = false
    keep()
    Object.assign(fields, copy(typing.server()))
  }

  return { fields, model, type, flush, again, discard, failed, waits: computed(() => unsaved.size > 0) }
}

/** Nothing of what one person typed is left for the next one at this browser. */
export function forgetTyped() {
  try {
    for (const key of Object.keys(localStorage)) if (key.startsWith(storage)) localStorage.removeItem(key)
  } catch {
    // Nothing was kept.
  }
}

function readKept<T>(key: string): Partial<Record<keyof T, Kept>> {
  try {
    return JSON.parse(localStorage.getItem(storage + key) ?? '{}') as Partial<Record<keyof T, Kept>>
  } catch {
    return {}
  }
}

function forget(key: string) {
  try {
    localStorage.removeItem(storage + key)
  } catch {
    // Nothing was kept.
  }
}
