<script setup lang="ts">
import { counted } from '../../shared/words'
import { useQuery } from '@tanstack/vue-query'
import { onMounted, ref } from 'vue'
import { answer, api } from '../../api/client'
import { useNotices } from '../../shared/notices'
import ProgressLine from '../../shared/ProgressLine.vue'
import { keys, useRefresh } from '../../shared/queries'
import { importDoor } from './door'
import { filesOf, useIntake } from './intake'

const props = defineProps<{ albumId: string }>()
const intake = useIntake()
const notices = useNotices()
const refresh = useRefresh()
const over = ref(false)
const picker = ref<HTMLInputElement>()
const folderPicker = ref<HTMLInputElement>()
const { data: outbox, refetch: lookAtOutbox } = useQuery({
  queryKey: keys.outbox,
  queryFn: () => answer(api.GET('/api/outbox')),
  refetchInterval: 15_000,
})

const accept =
  '.jpg,.jpeg,.png,.webp,.avif,.heic,.heif,.tif,.tiff,.gif,.pdf,.zip,.mp4,.m4v,.mov,.mkv,.webm,.avi,' +
  'image/*,video/*,application/pdf,application/zip'
const door = () => importDoor(props.albumId)
const anew = () => refresh(props.albumId)

async function take(files: File[]) {
  await intake.take(props.albumId, files, door(), anew)
}

async function onDrop(event: DragEvent) {
  over.value = false
  if (!event.dataTransfer) return
  try {
    await take(await filesOf(event.dataTransfer))
  } catch (error) {
    notices.refused(error)
  }
}

function onPick(event: Event) {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  input.value = ''
  void take(files)
}

async function fetchOutbox() {
  try {
    intake.watchOver(
      props.albumId,
      await answer(api.POST('/api/albums/{albumId}/imports/outbox', { params: { path: { albumId: props.albumId } } })),
    )
    await intake.follow(door(), anew)
  } catch (error) {
    notices.refused(error)
  }
  await lookAtOutbox()
}

async function stop() {
  try {
    await intake.cancel(door())
    await intake.follow(door(), anew)
  } catch (error) {
    notices.refused(error)
  }
}

// An import that was under way when the window was closed or the server restarted goes on here.
onMounted(async () => {
  if (intake.running) return
  try {
    const imports = await answer(
      api.GET('/api/albums/{albumId}/imports', { params: { path: { albumId: props.albumId } } }),
    )
    const open = imports.find((i) => i.state === 'working' || (i.state === 'receiving' && i.waiting > 0))
    if (open && !intake.running) {
      intake.watchOver(props.albumId, open)
      await intake.follow(door(), anew)
    }
  } catch (error) {
    notices.refused(error)
  }
})
</script>

<template>
  <section
    class="drop"
    :class="{ over }"
    aria-label="Add photos"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="onDrop"
  >
    <div class="d-flex align-items-center gap-3 flex-wrap">
      <div>
        <h2 class="h5 mb-0">Add photos</h2>
        <p class="mb-0 visually-quiet">
          Drop photos, scans, PDFs, a whole folder or a zip here. The camera's own time decides where they go.
        </p>
      </div>
      <div class="ms-auto d-flex gap-2 flex-wrap">
        <BButton variant="primary" :disabled="intake.running" @click="picker?.click()">Choose photos</BButton>
        <BButton variant="outline-dark" :disabled="intake.running" @click="folderPicker?.click()"
          >Choose a folder</BButton
        >
        <BButton
          v-if="outbox && outbox.files > 0"
          variant="outline-dark"
          :disabled="intake.running"
          data-testid="outbox"
          @click="fetchOutbox"
          >Fetch {{ outbox.files }} from the phone</BButton
        >
      </div>
      <input
        ref="picker"
        type="file"
        multiple
        :accept="accept"
        class="visually-hidden"
        tabindex="-1"
        aria-label="Photo files"
        data-testid="file-picker"
        @change="onPick"
      />
      <input
        ref="folderPicker"
        type="file"
        multiple
        webkitdirectory
        class="visually-hidden"
        tabindex="-1"
        aria-label="Photo folder"
        data-testid="folder-picker"
        @change="onPick"
      />
    </div>

    <div v-if="intake.view && intake.albumId === albumId" class="mt-3" data-testid="intake">
      <ProgressLine
        :done="intake.looked"
        :total="intake.all"
        :label="`${intake.looked} of ${counted(intake.all, 'file')} looked at`"
      />
      <p class="mt-2 mb-1" role="status" data-testid="intake-counts">
        {{ intake.looked }} of {{ counted(intake.all, 'file') }}: {{ intake.view.added }} added,
        {{ intake.view.alreadyHere }} already here, {{ intake.view.refused }} refused<span
          v-if="intake.view.state === 'cancelled'"
          >; stopped, {{ intake.view.cancelled }} were not looked at</span
        ><span v-else-if="intake.finished">; done</span>.
      </p>
      <p v-if="intake.waitingForServer" class="warning-chip">
        The server does not answer just now. What has arrived is safe; it goes on as soon as the server is back.
      </p>
      <p v-if="intake.problem" class="warning-chip" role="alert">{{ intake.problem }}</p>
      <div class="d-flex gap-2">
        <BButton v-if="intake.running" size="sm" variant="outline-dark" @click="stop">Cancel import</BButton>
        <BButton v-else size="sm" variant="outline-dark" @click="intake.clear()">Close this list</BButton>
        <a
          v-if="intake.finished"
          class="btn btn-sm btn-outline-dark"
          :href="`/api/imports/${intake.view.id}/outcomes.csv`"
          download
          >Export the list (CSV)</a
        >
      </div>
      <ul v-if="intake.view.refusedLines.length" class="refusals" data-testid="refusals">
        <li v-for="(o, i) in intake.view.refusedLines" :key="i">
          <strong class="text-break">{{ o.fileName }}</strong>: {{ o.detail }}
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.drop {
  padding: 1rem 1.2rem;
  border: 2px dashed #8b8072;
  border-radius: 0.6rem;
  background: var(--card);
}
.drop.over {
  border-color: var(--zest);
  background: var(--zest-pale);
}
.refusals {
  margin: 0.7rem 0 0;
  padding-left: 1.1rem;
  color: var(--warn);
  max-height: 12rem;
  overflow-y: auto;
}
</style>
