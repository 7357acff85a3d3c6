<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type AlbumView, type BackupView, type RestoreView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import ProgressLine from '../../shared/ProgressLine.vue'
import { counted } from '../../shared/words'

/** Bundles: written, looked at, downloaded, read back. */
const props = defineProps<{ album: AlbumView }>()
const notices = useNotices()
const client = useQueryClient()
const isOpen = (state: BackupView['state']) => state === 'waiting' || state === 'running'
const { data: backups, error } = useQuery({
  queryKey: ['backups'],
  queryFn: () => answer(api.GET('/api/backups')),
  // While one is written its progress is asked for; one may be due at any time.
  refetchInterval: (query) => (query.state.data?.some((b) => isOpen(b.state)) ? 500 : 10_000),
})
const restoreId = ref('')
const { data: restore } = useQuery({
  queryKey: computed(() => ['restore', restoreId.value]),
  queryFn: async () => {
    const now = await answer(api.GET('/api/restores/{id}', { params: { path: { id: restoreId.value } } }))
    if (!isOpen(now.state)) await client.invalidateQueries({ queryKey: ['shelf'] })
    return now
  },
  enabled: computed(() => restoreId.value !== ''),
  refetchInterval: (query) => (query.state.data && !isOpen(query.state.data.state) ? false : 500),
})
const busy = ref(false)
async function act(call: () => Promise<unknown>, done: string) {
  if (busy.value) return
  busy.value = true
  try {
    await call()
    await client.invalidateQueries({ queryKey: ['backups'] })
    if (done) notices.done(done)
  } catch (refused) {
    notices.refused(refused)
  } finally {
    busy.value = false
  }
}
const backUp = (albumIds: string[]) =>
  act(() => answer(api.POST('/api/backups', { body: { requestKey: crypto.randomUUID(), albumIds } })), '')
const cancel = (id: string) =>
  act(() => answer(api.POST('/api/backups/{id}/cancel', { params: { path: { id } } })), 'The backup is cancelled.')
const remove = (id: string) =>
  act(() => answer(api.DELETE('/api/backups/{id}', { params: { path: { id } } })), 'The bundle is deleted.')
const began = (asked: RestoreView) => (restoreId.value = asked.id)
const restoreFrom = (id: string) =>
  act(async () => {
    const body = { requestKey: crypto.randomUUID() }
    began(await answer(api.POST('/api/backups/{id}/restore', { params: { path: { id } }, body })))
  }, '')
const stopRestore = () =>
  act(
    () => answer(api.POST('/api/restores/{id}/cancel', { params: { path: { id: restoreId.value } } })),
    'The restore is cancelled.',
  )
async function restoreFile(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  await act(async () => {
    const sent = await fetch(`/api/restores?requestKey=${crypto.randomUUID()}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: file,
    })
    const said = await sent.json()
    if (!sent.ok) throw new Error(said.detail ?? 'The file could not be sent. Nothing was restored.')
    began(said)
  }, '')
  input.value = ''
}
const { data: schedule } = useQuery({
  queryKey: ['backupSchedule'],
  queryFn: () => answer(api.GET('/api/backup-schedule')),
})
const { data: keptFiles } = useQuery({
  queryKey: ['keptFiles'],
  queryFn: () => answer(api.GET('/api/kept-files')),
})
const every = ref('')
const kept = ref('5')
watch(
  schedule,
  (now) => {
    if (now) [every.value, kept.value] = [now.everyDays ? String(now.everyDays) : '', String(now.kept)]
  },
  { immediate: true },
)
const setSchedule = () =>
  act(
    async () => {
      const body = { everyDays: every.value ? Number(every.value) : null, kept: Number(kept.value) }
      await answer(api.PUT('/api/backup-schedule', { body }))
      await client.invalidateQueries({ queryKey: ['backupSchedule'] })
    },
    every.value ? 'All albums are backed up by themselves from now on.' : 'Nothing is backed up by itself.',
  )
const size = (bytes: number) =>
  bytes >= 1e9
    ? `${(bytes / 1e9).toFixed(1)} GB`
    : bytes >= 1e6
      ? `${(bytes / 1e6).toFixed(1)} MB`
      : `${Math.ceil(bytes / 1e3)} kB`
function limits(most: { mostDays: number | null; mostBytes: number | null }) {
  const days = most.mostDays === null ? '' : `for ${counted(most.mostDays, 'day')}`
  const total = most.mostBytes === null ? '' : `up to ${size(most.mostBytes)}`
  return [days, total].filter(Boolean).join(' and ') || 'with no end'
}
const when = (instant: string) => new Date(instant).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <div class="room" data-testid="backup">
    <section class="room-panel mb-3">
      <h2 class="h5 mb-1">Backup</h2>
      <p>
        A bundle is one zip file with the album, its history and every original. It is checked after it is written. Keep
        a copy away from this machine.
      </p>
      <div class="d-flex flex-wrap gap-2">
        <BButton variant="primary" size="sm" :disabled="busy" @click="backUp([props.album.id])"
          >Back up this album</BButton
        >
        <BButton variant="outline-dark" size="sm" :disabled="busy" @click="backUp([])">Back up all albums</BButton>
      </div>
    </section>
    <section v-if="schedule" class="room-panel mb-3">
      <h3 class="h6">By itself</h3>
      <form class="d-flex flex-wrap gap-3 align-items-end" @submit.prevent="setSchedule">
        <div>
          <label for="backup-every" class="form-label mb-0">Back up all albums</label>
          <BFormSelect id="backup-every" v-model="every" size="sm">
            <option value="">never</option>
            <option value="1">every day</option>
            <option value="7">every week</option>
            <option value="30">every 30 days</option>
          </BFormSelect>
        </div>
        <div>
          <label for="backup-kept" class="form-label mb-0">Bundles to keep</label>
          <BFormInput id="backup-kept" v-model="kept" type="number" min="1" max="50" size="sm" />
        </div>
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy">Set schedule</BButton>
      </form>
      <p class="form-text mb-0 text-break">
        Into the folder {{ schedule.folder }}, while Zesty Pocket runs. Each bundle is restored on trial before it
        counts.
      </p>
    </section>
    <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
    <section v-if="backups?.length" class="room-panel mb-3">
      <h3 class="h6">Bundles</h3>
      <ul class="bundles">
        <li v-for="b in backups" :key="b.id" data-testid="bundle">
          <div class="flex-grow-1">
            <strong class="text-break">{{ b.fileName }}</strong>
            <span class="visually-quiet d-block">
              {{ when(b.madeAt) }}<template v-if="b.state === 'done'"> · {{ size(b.bytes) }} · checked</template>
            </span>
            <template v-if="isOpen(b.state)">
              <ProgressLine
                :done="b.filesDone"
                :total="b.filesTotal"
                :label="`${b.filesDone} of ${b.filesTotal} files written`"
              />
            </template>
            <p v-if="b.state === 'cancelled'" class="mb-0">Cancelled. No bundle was kept.</p>
            <p v-if="b.problem" class="warning-chip mb-0" role="alert">{{ b.problem }}</p>
            <p v-for="line in b.report" :key="line" class="small mb-0">{{ line }}</p>
          </div>
          <div class="d-flex flex-wrap gap-2">
            <BButton
              v-if="isOpen(b.state)"
              size="sm"
              variant="outline-dark"
              :aria-label="`Cancel ${b.fileName}`"
              @click="cancel(b.id)"
              >Cancel</BButton
            >
            <template v-else>
              <a
                v-if="b.state === 'done'"
                class="btn btn-sm btn-outline-dark"
                :href="`/api/backups/${b.id}/file`"
                :aria-label="`Download ${b.fileName}`"
                download
                >Download</a
              >
              <BButton
                v-if="b.state === 'done'"
                size="sm"
                variant="outline-dark"
                :disabled="busy"
                :aria-label="`Restore ${b.fileName}`"
                @click="restoreFrom(b.id)"
                >Restore</BButton
              >
              <BButton
                size="sm"
                variant="outline-dark"
                :disabled="busy"
                :aria-label="`Delete ${b.fileName}`"
                @click="remove(b.id)"
                >Delete</BButton
              >
            </template>
          </div>
        </li>
      </ul>
    </section>
    <section class="room-panel">
      <h3 class="h6">Restore</h3>
      <p class="mb-2">
        An album that is here already stays as it is: the bundle's comes beside it. Of a damaged bundle everything that
        is whole comes back.
      </p>
      <label for="bundle-file" class="form-label mb-0">Bundle from a file</label>
      <input
        id="bundle-file"
        type="file"
        accept=".zip"
        class="form-control form-control-sm w-auto"
        @change="restoreFile"
      />
      <div v-if="restore" class="mt-3" role="status" data-testid="restore">
        <template v-if="isOpen(restore.state)">
          {{ counted(restore.filesDone, 'file') }} read back …
          <BButton size="sm" variant="outline-dark" @click="stopRestore">Cancel restore</BButton>
        </template>
        <template v-else-if="restore.state === 'done'">
          <p class="mb-1">
            {{ counted(restore.albumIds.length, 'album') }} restored{{
              restore.report.length ? ', with this to know:' : ', everything as it was.'
            }}
          </p>
          <ul v-if="restore.report.length">
            <li v-for="line in restore.report" :key="line">{{ line }}</li>
          </ul>
          <RouterLink to="/">Go to the shelf</RouterLink>
        </template>
        <p v-else-if="restore.problem" class="warning-chip mb-0">{{ restore.problem }}</p>
        <p v-else class="mb-0">Cancelled. Nothing was restored.</p>
      </div>
    </section>
    <section v-if="keptFiles" class="room-panel mt-3" data-testid="kept-files">
      <h3 class="h6">What is kept beside your albums</h3>
      <ul class="mb-0">
        <li>
          Drawn sheets, books and files for a lab: {{ counted(keptFiles.prints.files, 'file') }},
          {{ size(keptFiles.prints.bytes) }}. Kept {{ limits(keptFiles.prints) }}; all can be drawn again.
        </li>
        <li>
          Bundles: {{ counted(keptFiles.bundles.files, 'file') }}, {{ size(keptFiles.bundles.bytes) }}. Kept
          {{ limits(keptFiles.bundles) }}.
        </li>
        <li>
          Videos you did not choose to keep: {{ counted(keptFiles.videos.files, 'file') }},
          {{ size(keptFiles.videos.bytes) }}. Kept {{ limits(keptFiles.videos) }}; the pictures taken from them stay.
        </li>
      </ul>
      <p class="form-text mb-0">Whoever runs the program sets these limits.</p>
    </section>
  </div>
</template>

<style scoped>
.bundles {
  display: grid;
  gap: 0.75rem;
  margin: 0;
  padding: 0;
  list-style: none;
}
.bundles li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: start;
}
</style>
