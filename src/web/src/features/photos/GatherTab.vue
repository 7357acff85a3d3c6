<script setup lang="ts">
import { counted, plural } from '../../shared/words'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { AlbumView, PhotoView, UnitView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useAct } from '../../shared/act'
import { useCameras } from '../dates/queries'
import { usePhotoPages } from './queries'
import type { Edit } from '../placing/unit'
import DayNotes from '../dates/DayNotes.vue'
import { cullKeys, photoWords, usePhotoEdits } from './edits'
import ImportPanel from './ImportPanel.vue'
import KeepsakeList from '../placing/KeepsakeList.vue'
import PhotoMarks from './PhotoMarks.vue'
import PhotoTray from './PhotoTray.vue'
import PhotoViewer from './PhotoViewer.vue'
import { singleKeys } from '../../shared/shortcuts'
import { albumPlace } from '../../shared/places'

const props = defineProps<{ unit: UnitView; album: AlbumView; edit: (change: Edit) => Promise<unknown> }>()
const { act } = useAct(() => props.album.id)
const editPhotos = usePhotoEdits(() => props.album.id)
const { data: cameras } = useCameras(() => props.album.id)
const { data: noDate } = usePhotoPages(() => props.album.id, { Scope: 'noDate', Take: 60 })
const { data: outside } = usePhotoPages(() => props.album.id, { Scope: 'outside', Take: 60 })
const { data: leftOut } = usePhotoPages(() => props.album.id, { Scope: 'leftOut', Take: 60 })
const viewing = ref<{ photos: PhotoView[]; start: string } | null>(null)
const route = useRoute()
const router = useRouter()

function close() {
  viewing.value = null
  if (route.query.photo) void router.replace({ query: {} })
}

// An address may name a photo, as one that was found does.
watch(
  () => [route.query.photo, props.unit.id],
  ([start]) => {
    if (props.unit.photos.some((p) => p.id === start))
      viewing.value = { photos: props.unit.photos, start: start as string }
  },
  { immediate: true },
)

const doubts = computed(() => cameras.value?.cameras.filter((c) => c.doubt) ?? [])
const days = computed(() =>
  props.unit.kind === 'hour'
    ? [{ day: props.unit.firstDay, label: props.unit.title, photos: props.unit.photos }]
    : props.unit.days.map((d) => ({ ...d, photos: props.unit.photos.filter((p) => p.day === d.day) })),
)
const wanted = computed(() => props.unit.counts.picturesWanted)

const mendClock = (camera: string) =>
  act(() => editAlbum(props.album.id, { kind: 'acceptClockDoubt', revision: cameras.value!.revision, camera }))

function onKey(photo: PhotoView, event: KeyboardEvent) {
  const what = cullKeys[event.key.toLowerCase()]
  if (!what || !singleKeys.value || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  event.stopPropagation()
  void editPhotos([photo], what)
}
</script>

<template>
  <div class="gather">
    <ImportPanel :album-id="album.id" />

    <section v-for="c in doubts" :key="c.camera" class="doubt" data-testid="clock-doubt">
      <p class="mb-0">
        <strong>Is the clock of {{ c.camera }} right?</strong> {{ c.doubt }}
      </p>
      <BButton v-if="c.doubtRemedy" size="sm" variant="primary" @click="mendClock(c.camera)">{{
        c.doubtRemedy
      }}</BButton>
      <RouterLink class="btn btn-sm btn-outline-dark" :to="albumPlace(album.id, 'gather', 'cameras')"
        >Cameras & places</RouterLink
      >
    </section>

    <div class="d-flex align-items-baseline flex-wrap gap-3 mt-3">
      <h2 class="h5 mb-0">
        {{ unit.title }} · {{ unit.label }}
        <small class="visually-quiet fw-normal">{{ counted(unit.photos.length, 'photo') }}</small>
      </h2>
      <span v-if="unit.leftOut" class="visually-quiet">left out on purpose: nothing is missed</span>
      <span v-else-if="wanted > 0" data-testid="pictures-wanted"
        >{{ wanted }} more {{ plural(wanted, 'picture or card fills', 'pictures or cards fill') }} its pockets</span
      >
      <span v-else class="visually-quiet">enough to fill its pockets</span>
    </div>

    <div class="days" :class="{ many: days.length > 4 }">
      <section v-for="day in days" :key="day.day" class="day" :aria-label="day.label">
        <h3 class="day-label">
          {{ day.label }} <span class="visually-quiet">· {{ day.photos.length }}</span>
        </h3>
        <DayNotes :unit="unit" :day="day.day" :edit="edit" />
        <ul class="day-photos">
          <li v-for="photo in day.photos" :key="photo.id" class="day-photo">
            <button
              type="button"
              class="day-open"
              :class="{ proposed: photo.id === unit.proposedPhotoId }"
              :aria-label="`${photoWords(photo)}${photo.id === unit.proposedPhotoId ? ', nearest to the hour' : ''}`"
              :title="`${photo.fileName} ${photo.camera ?? ''}`"
              @click="viewing = { photos: unit.photos, start: photo.id }"
              @keydown="onKey(photo, $event)"
            >
              <img :src="photo.picture + '512'" alt="" loading="lazy" />
              <PhotoMarks :photo="photo" />
            </button>
            <span class="d-flex justify-content-between align-items-center">
              <span class="photo-time">{{ photo.time }}</span>
              <button
                type="button"
                class="leave"
                :aria-label="`Leave ${photo.fileName} out of the album`"
                title="Leave out of the album"
                @click="editPhotos([photo], { kind: 'judgePhoto', verdict: 'leave' })"
              >
                ×
              </button>
            </span>
          </li>
          <li v-if="day.photos.length === 0" class="visually-quiet small">no photos</li>
        </ul>
      </section>
    </div>

    <KeepsakeList :unit="unit" :edit="edit" />

    <PhotoTray
      title="No date"
      test-id="no-date"
      hint="The file says nothing about its day. Give it one; a guess is only offered."
      :photos="noDate?.pages.flatMap((p) => p.photos) ?? []"
      :album-id="album.id"
    />
    <PhotoTray
      title="Not in the album"
      test-id="outside"
      hint="These pictures were taken on days outside this album. Lengthen the album on the tape, or change their day."
      :photos="outside?.pages.flatMap((p) => p.photos) ?? []"
      :album-id="album.id"
    />
    <PhotoTray
      title="Left out"
      test-id="left-out"
      hint="You left these out. They can be taken back."
      :photos="leftOut?.pages.flatMap((p) => p.photos) ?? []"
      :album-id="album.id"
    />

    <PhotoViewer v-if="viewing" :album-id="album.id" :photos="viewing.photos" :start="viewing.start" @close="close" />
  </div>
</template>

<style scoped>
.gather {
  flex: 1;
  overflow-y: auto;
  padding: 1rem 1.25rem 4rem;
}
.doubt {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.75rem;
  margin-top: 0.75rem;
  padding: 0.6rem 1rem;
  border: 1px solid var(--warn);
  border-left-width: 8px;
  border-radius: 0.5rem;
  background: var(--warn-pale);
}
.doubt p {
  flex: 1 1 30rem;
}
.days {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(13rem, 1fr));
  gap: 0.6rem;
  margin-top: 0.75rem;
}
.days.many {
  grid-template-columns: repeat(auto-fit, minmax(9.5rem, 1fr));
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
.day-open {
  position: relative;
  display: block;
  width: 100%;
  padding: 0;
  border: 2px solid transparent;
  border-radius: 4px;
  background: none;
}
.day-open.proposed {
  border-color: var(--zest);
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
@media (max-width: 800px) {
  .days,
  .days.many {
    grid-template-columns: 1fr;
  }
  .day {
    min-height: 0;
  }
}
</style>
