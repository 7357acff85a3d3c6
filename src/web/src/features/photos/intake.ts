import { promiseTimeout } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { Refusal, type ImportView } from '../../api/client'

const paths = new WeakMap<File, string>()

/** A file's name with the folders it came in: they may be named for its day. */
export const pathOf = (file: File) => paths.get(file) ?? (file.webkitRelativePath || file.name)

/** Files that are picked or dropped, folders opened to their depths. */
export async function filesOf(transfer: DataTransfer): Promise<File[]> {
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry?.()).filter((e) => e != null)
  if (entries.length === 0) return [...transfer.files]
  const files: File[] = []
  for (const entry of entries) await collect(entry, files)
  return files
}

async function collect(entry: FileSystemEntry, into: File[]): Promise<void> {
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject))
    paths.set(file, entry.fullPath)
    into.push(file)
    return
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader()
  for (;;) {
    // A reader gives a hundred entries at a time, and none at the end.
    const batch = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject))
    if (batch.length === 0) return
    for (const child of batch) await collect(child, into)
  }
}

/** What the server does for an import. */
export interface ImportDoor {
  begin: () => Promise<ImportView>
  send: (id: string, file: File, key: string, signal: AbortSignal) => Promise<unknown>
  close: (id: string) => Promise<ImportView>
  cancel: (id: string) => Promise<ImportView>
  look: (id: string) => Promise<ImportView>
}

/** How long a lost server is waited for between tries. */
const tries = 40

/**
 * Files on their way into an album. Sending goes on over a restart of the server; what has arrived is worked on even
 * when this window is closed.
 */
export const useIntake = defineStore('intake', () => {
  const albumId = ref('')
  const view = ref<ImportView | null>(null)
  const sending = ref(false)
  const sent = ref(0)
  const total = ref(0)
  const waitingForServer = ref(false)
  const problem = ref('')
  let stop: AbortController | null = null
  let rest = 1

  const finished = computed(() => view.value?.state === 'done' || view.value?.state === 'cancelled')
  const running = computed(() => sending.value || (view.value !== null && !finished.value))
  const looked = computed(() => {
    const v = view.value
    return v ? v.files - v.waiting : 0
  })
  /** Files of a zip are counted once it is opened, so the total can grow. */
  const all = computed(() => Math.max(total.value, view.value?.files ?? 0))

  async function sendOne(door: ImportDoor, id: string, file: File, key: string) {
    for (let attempt = 1; ; attempt++) {
      try {
        await door.send(id, file, key, stop!.signal)
        waitingForServer.value = false
        return
      } catch (error) {
        // A refusal is an answer; a silent server is tried again, under the same key.
        const silent = error instanceof Refusal && (error.status === 0 || error.status >= 500)
        if (stop!.signal.aborted || !silent || attempt >= tries) throw error
        waitingForServer.value = true
        await promiseTimeout(rest * 1000)
      }
    }
  }

  /** Sends files two at a time and follows the import to its end. */
  async function take(album: string, files: File[], door: ImportDoor, onStep?: () => unknown) {
    if (running.value || files.length === 0) return
    stop = new AbortController()
    albumId.value = album
    problem.value = ''
    sent.value = 0
    total.value = files.length
    sending.value = true
    try {
      view.value = await door.begin()
      const id = view.value.id
      const queue = files.map((file, i) => ({ file, key: String(i) }))
      const work = async () => {
        for (let next = queue.shift(); next && !stop!.signal.aborted; next = queue.shift()) {
          await sendOne(door, id, next.file, next.key)
          sent.value++
          if (sent.value % 10 === 0) view.value = await door.look(id)
        }
      }
      await Promise.all([work(), work()])
      if (!stop.signal.aborted) view.value = await door.close(id)
    } catch (error) {
      if (!stop.signal.aborted) {
        problem.value = error instanceof Error ? error.message : 'The files could not be sent.'
        stop.abort()
        if (view.value) view.value = await door.close(view.value.id).catch(() => view.value)
      }
    } finally {
      sending.value = false
      waitingForServer.value = false
    }
    await follow(door, onStep)
  }

  /** Looks until the import is over; also for one that this window did not begin. */
  async function follow(door: ImportDoor, onStep?: () => unknown) {
    let before = -1
    while (view.value && !finished.value) {
      try {
        view.value = await door.look(view.value.id)
        waitingForServer.value = false
      } catch (error) {
        if (!(error instanceof Refusal) || (error.status !== 0 && error.status < 500)) throw error
        waitingForServer.value = true
      }
      if (looked.value !== before && looked.value - before >= 20) {
        before = looked.value
        void onStep?.()
      }
      if (!finished.value) await promiseTimeout(rest * 400)
    }
    await onStep?.()
  }

  async function cancel(door: ImportDoor) {
    stop?.abort()
    if (view.value) view.value = await door.cancel(view.value.id)
  }

  /** Takes over an import that is under way or was fetched from the phone. */
  function watchOver(album: string, started: ImportView) {
    albumId.value = album
    view.value = started
    total.value = started.files
    problem.value = ''
  }

  function clear() {
    if (!running.value) {
      view.value = null
      total.value = 0
      problem.value = ''
    }
  }

  /** Tests do not wait. */
  const hurry = () => (rest = 0)

  return {
    albumId,
    view,
    sending,
    sent,
    total,
    all,
    looked,
    finished,
    running,
    problem,
    waitingForServer,
    take,
    follow,
    cancel,
    watchOver,
    clear,
    hurry,
  }
})
