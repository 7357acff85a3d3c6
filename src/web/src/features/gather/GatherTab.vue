<script setup lang="ts">
import { computed, ref } from 'vue'
import { answer, api, type AlbumView, type ImportOutcome, type PhotoView, type UnitView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import ProgressLine from '../../shared/ProgressLine.vue'
import { useRefresh, useWaitingPhotos } from '../albums/queries'
import { filesOf, useIntake } from './intake'

const props = defineProps<{ unit: UnitView; album: AlbumView }>()
const intake = useIntake()
const notices = useNotices()
const refresh = useRefresh()
const { data: waiting } = useWaitingPhotos(() => props.album.id)
const over = ref(false)
const picker = ref<HTMLInputElement>()
const folderPicker = ref<HTMLInputElement>()
const dayFor = ref<Record<string, string>>({})

const days = computed(() => {
  const groups = new Map<string, { label: string; photos: PhotoView[] }>()
  for (let d = 0; d < 7; d++) {
    const day = new Date(`${props.unit.firstDay}T12:00:00Z`)
    day.setUTCDate(day.getUTCDate() + d)
    const label = day.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' })
    groups.set(day.toISOString().slice(0, 10), { label: label.replace(',', ''), photos: [] })
  }
  for (const photo of props.unit.photos) groups.get(photo.day ?? '')?.photos.push(photo)
  return [...groups.values()]
})

async function send(file: File, signal: AbortSignal): Promise<ImportOutcome> {
  return answer(
    api.POST('/api/albums/{albumId}/photos', {
      params: { path: { albumId: props.album.id }, query: { name: file.name } },
      body: file as unknown as string,
      bodySerializer: (body) => body as unknown as BodyInit,
      headers: { 'Content-Type': 'application/octet-stream' },
      signal,
    }),
  )
}

async function take(files: File[]) {
  if (files.length === 0) return
  await intake.take(files, send)
  await refresh(props.album.id)
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

async function move(photo: PhotoView, day: string | null, leftOut: boolean) {
  try {
    await answer(
      api.PUT('/api/photos/{id}/day', {
        params: { path: { id: photo.id } },
        body: { revision: photo.revision, day: day || null, leftOut },
      }),
    )
    await refresh(props.album.id)
    notices.done(leftOut ? `${photo.fileName} is left out; it waits below.` : `${photo.fileName} is on its day.`)
  } catch (error) {
    notices.refused(error)
    await refresh(props.album.id)
  }
}
</script>

<template>
  <div class="gather">
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
            Drop files or a whole folder here. The camera's own time decides the week and the day.
          </p>
        </div>
        <div class="ms-auto d-flex gap-2">
          <BButton variant="primary" :disabled="intake.running" @click="picker?.click()">Choose photos</BButton>
          <BButton variant="outline-dark" :disabled="intake.running" @click="folderPicker?.click()"
            >Choose a folder</BButton
          >
        </div>
        <input
          ref="picker"
          type="file"
          multiple
          accept=".jpg,.jpeg,.png,image/jpeg,image/png"
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
          @change="onPick"
        />
      </div>

      <div v-if="intake.total > 0" class="mt-3" data-testid="intake">
        <ProgressLine
          :done="intake.done"
          :total="intake.total"
          :label="`${intake.done} of ${intake.total} files looked at`"
        />
        <p class="mt-2 mb-1" role="status" data-testid="intake-counts">
          {{ intake.done }} of {{ intake.total }} files: {{ intake.added }} added, {{ intake.already }} already here,
          {{ intake.refusedOnes.length }} refused<span v-if="intake.cancelled">; stopped, the rest was not sent</span>.
        </p>
        <BButton v-if="intake.running" size="sm" variant="outline-dark" @click="intake.cancel()">Stop</BButton>
        <BButton v-else size="sm" variant="outline-dark" @click="intake.clear()">Close this list</BButton>
        <ul v-if="intake.refusedOnes.length" class="refusals" data-testid="refusals">
          <li v-for="(o, i) in intake.refusedOnes" :key="i">
            <strong class="text-break">{{ o.fileName }}</strong>: {{ o.detail }}
          </li>
        </ul>
      </div>
    </section>

    <h2 class="h5 mt-3">
      Week {{ unit.number }} · {{ unit.label }}
      <small class="visually-quiet fw-normal">{{ unit.photos.length }} photos</small>
    </h2>
    <div class="week">
      <section v-for="day in days" :key="day.label" class="day" :aria-label="day.label">
        <h3 class="day-label">
          {{ day.label }} <span class="visually-quiet">· {{ day.photos.length }}</span>
        </h3>
        <ul class="day-photos">
          <li v-for="photo in day.photos" :key="photo.id" class="day-photo">
            <img
              :src="`/api/photos/${photo.id}/picture?side=512`"
              :alt="`Photo ${photo.fileName}`"
              :title="`${photo.fileName} ${photo.time ?? ''} ${photo.camera ?? ''}`"
              loading="lazy"
            />
            <span class="d-flex justify-content-between align-items-center">
              <span class="photo-time">{{ photo.time }}</span>
              <button
                type="button"
                class="leave"
                :aria-label="`Leave ${photo.fileName} out of the album`"
                title="Leave out of the album"
                @click="move(photo, photo.day ?? null, true)"
              >
                ×
              </button>
            </span>
          </li>
          <li v-if="day.photos.length === 0" class="visually-quiet small">no photos</li>
        </ul>
      </section>
    </div>

    <section v-if="waiting && waiting.length" class="mt-4" aria-label="No week yet" data-testid="waiting">
      <h2 class="h5">
        No week yet <small class="visually-quiet fw-normal">{{ waiting.length }} photos wait</small>
      </h2>
      <p class="form-text mt-0">
        Give a picture its day here. If its day lies after the last week, “+ 4 weeks” above lengthens the album and the
        picture finds its week by itself.
      </p>
      <ul class="waiting">
        <li v-for="photo in waiting" :key="photo.id" class="waiting-photo">
          <img :src="`/api/photos/${photo.id}/picture?side=512`" :alt="`Photo ${photo.fileName}`" loading="lazy" />
          <div>
            <div class="text-break">{{ photo.fileName }}</div>
            <div class="visually-quiet small">
              {{
                photo.leftOut
                  ? 'left out'
                  : photo.day
                    ? `${photo.dayLabel} is in no week of this album`
                    : 'no date in the file'
              }}
            </div>
            <div v-if="photo.leftOut" class="mt-1">
              <button type="button" class="btn btn-sm btn-outline-dark" @click="move(photo, photo.day ?? null, false)">
                Take back
              </button>
            </div>
            <div v-else class="d-flex gap-1 mt-1">
              <input
                v-model="dayFor[photo.id]"
                type="date"
                class="form-control form-control-sm"
                :aria-label="`Day of ${photo.fileName}`"
              />
              <button
                type="button"
                class="btn btn-sm btn-outline-dark"
                :disabled="!dayFor[photo.id]"
                @click="move(photo, dayFor[photo.id] ?? null, false)"
              >
                Put there
              </button>
            </div>
          </div>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.gather {
  flex: 1;
  overflow-y: auto;
  padding: 1rem 1.25rem 4rem;
}
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
}
.week {
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  gap: 0.6rem;
}
.day {
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 0.5rem;
  padding: 0.5rem;
  min-height: 8rem;
}
.day-label {
  font-size: 0.85rem;
  font-family: inherit;
}
.day-photos {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(68px, 1fr));
  gap: 6px;
}
.day-photo img {
  width: 100%;
  aspect-ratio: 1;
  object-fit: cover;
  border-radius: 3px;
  display: block;
}
.photo-time {
  font-size: 0.72rem;
  color: var(--ink-soft);
}
.leave {
  border: 0;
  background: none;
  color: var(--ink-soft);
  min-width: 24px;
  min-height: 24px;
  line-height: 1;
}
.waiting {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.75rem;
}
.waiting-photo {
  display: flex;
  gap: 0.75rem;
  padding: 0.5rem;
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 0.5rem;
}
.waiting-photo img {
  width: 84px;
  height: 84px;
  object-fit: cover;
  border-radius: 3px;
}
@media (max-width: 800px) {
  .week {
    grid-template-columns: 1fr;
  }
  .day {
    min-height: 0;
  }
}
</style>
