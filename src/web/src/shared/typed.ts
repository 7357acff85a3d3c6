import { useTimeoutFn } from '@vueuse/core'
import { computed, onScopeDispose, reactive, ref, shallowReactive, toRaw, watch, type WritableComputedRef } from 'vue'
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

/**
 * Fields of one thing that a hand writes in. What is typed stands in the window at once and is kept there (over a
 * reload too) until the server has it; it goes out one edit after another and is never replaced under the hand: only
 * fields that hold nothing unsaved take what the server says. A refusal leaves the words where they are.
 */
export function useTyped<T extends Record<string, unknown>>(typing: Typing<T>) {
  const fields = reactive({ ...copy(typing.server()) }) as T
  const unsaved: Set<keyof T> = shallowReactive(new Set())
  /** The last saving was refused or lost: what was typed stands here alone. */
  const failed = ref(false)
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
        const kept = Object.fromEntries([...unsaved].map((name) => [name, fields[name]]))
        localStorage.setItem(storage + current, JSON.stringify(kept))
      }
    } catch {
      // A browser that keeps nothing still holds it in the fields.
    }
  }

  /** What a window that was closed had not sent. */
  function takeUp() {
    const kept = readKept<T>(current)
    for (const name of Object.keys(kept) as (keyof T)[]) {
      if (!(name in fields) || same(kept[name], fields[name])) continue
      fields[name] = kept[name] as T[keyof T]
      unsaved.add(name)
    }
    if (unsaved.size) pause.start()
    else keep()
  }

  function type<K extends keyof T>(name: K, value: T[K]) {
    fields[name] = value
    unsaved.add(name)
    keep()
    pause.start()
  }

  /** Sends what waits, after what is on its way; true when the server has everything. */
  function flush(): Promise<boolean> {
    pause.stop()
    return (running ??= send().finally(() => (running = undefined)))
  }

  async function send(): Promise<boolean> {
    while (unsaved.size && typing.save) {
      const [of, names, sent] = [current, [...unsaved], copy(fields)]
      const saved = await typing.save(sent, names, of)
      // Meanwhile the hand may have gone on, or to another thing.
      if (of !== current) return saved
      failed.value = !saved
      if (!saved) return false
      for (const name of names) if (same(fields[name], sent[name])) unsaved.delete(name)
      keep()
    }
    return true
  }

  watch(
    typing.key,
    (key) => {
      // What was typed into the thing before goes out as its own.
      const before = current
      if (unsaved.size && typing.save)
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

  return { fields, model, type, flush, discard, failed, waits: computed(() => unsaved.size > 0) }
}

function readKept<T>(key: string): Partial<T> {
  try {
    return JSON.parse(localStorage.getItem(storage + key) ?? '{}') as Partial<T>
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
