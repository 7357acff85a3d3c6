import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { ImportOutcome } from '../../api/client'

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
    into.push(await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject)))
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

type Send = (file: File, signal: AbortSignal) => Promise<ImportOutcome>

/** Photos on their way into an album: how many, what became of each, and a way to stop. */
export const useIntake = defineStore('intake', () => {
  const total = ref(0)
  const outcomes = ref<ImportOutcome[]>([])
  const running = ref(false)
  const cancelled = ref(false)
  let stop: AbortController | null = null

  const done = computed(() => outcomes.value.length)
  const added = computed(() => outcomes.value.filter((o) => o.status === 'added').length)
  const already = computed(() => outcomes.value.filter((o) => o.status === 'alreadyHere').length)
  const refusedOnes = computed(() => outcomes.value.filter((o) => o.status === 'refused'))

  /** Sends files two at a time, as many as the picture bench works on. */
  async function take(files: File[], send: Send) {
    if (running.value || files.length === 0) return
    stop = new AbortController()
    total.value = files.length
    outcomes.value = []
    cancelled.value = false
    running.value = true
    const queue = [...files]
    const work = async () => {
      for (let file = queue.shift(); file && !stop!.signal.aborted; file = queue.shift()) {
        try {
          outcomes.value.push(await send(file, stop!.signal))
        } catch (error) {
          if (stop!.signal.aborted) return
          const detail = error instanceof Error ? error.message : 'The file could not be sent. Try it again.'
          outcomes.value.push({ fileName: file.name, status: 'refused', detail, photoId: null, unitId: null })
        }
      }
    }
    try {
      await Promise.all([work(), work()])
    } finally {
      running.value = false
    }
  }

  function cancel() {
    cancelled.value = true
    stop?.abort()
  }

  function clear() {
    if (!running.value) {
      total.value = 0
      outcomes.value = []
    }
  }

  return { total, outcomes, running, cancelled, done, added, already, refusedOnes, take, cancel, clear }
})
