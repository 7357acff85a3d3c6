<script setup lang="ts">
import { counted } from '../../shared/words'
import { computed, reactive, ref, watch } from 'vue'
import type { AlbumEdit, AlbumView, CameraView, StayView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useAct } from '../../shared/act'
import { useCalendar, useCameras, useZones } from './queries'
import { usePhotoPages } from '../photos/queries'
import ReminderPanel from './ReminderPanel.vue'

const props = defineProps<{ album: AlbumView }>()
const { act } = useAct(() => props.album.id)
const { data: cameras } = useCameras(() => props.album.id)
const { data: calendar } = useCalendar(() => props.album.id)
const { data: zones } = useZones()
const setting = ref<CameraView | null>(null)
const pair = reactive({ wrong: '', right: '', trueTime: '', hours: 0, minutes: 0 })
const stays = ref<StayView[]>([])
const form = reactive({ homeZone: '', cutOff: '' })

watch(
  calendar,
  (c) => {
    if (!c) return
    stays.value = c.stays.map((s) => ({ ...s }))
    form.homeZone = c.homeZone
    form.cutOff = c.cutOff
  },
  { immediate: true },
)

const { data: own } = usePhotoPages(
  () => props.album.id,
  computed(() => ({ Take: 200, Camera: setting.value?.camera ?? '-none-' })),
)
const { data: all } = usePhotoPages(() => props.album.id, { Take: 300 })
const ownPhotos = computed(() => own.value?.pages.flatMap((p) => p.photos) ?? [])
const otherPhotos = computed(() =>
  (all.value?.pages.flatMap((p) => p.photos) ?? []).filter((p) => p.camera !== setting.value?.camera && p.time),
)

const change = (edit: AlbumEdit) => act(() => editAlbum(props.album.id, edit))
const clockOf = (camera: string) => ({ camera, revision: cameras.value!.revision })
const accept = (camera: string) => change({ kind: 'acceptClockDoubt', ...clockOf(camera) })

const takeBack = (of: CameraView) =>
  change(
    of.leftOnZone
      ? { kind: 'leaveCameraOnZone', ...clockOf(of.camera), zone: '' }
      : { kind: 'shiftCamera', ...clockOf(of.camera), seconds: 0 },
  )

async function byPair() {
  const camera = clockOf(setting.value!.camera)
  const match = { kind: 'matchPictures' as const, ...camera, wrongPhotoId: pair.wrong, rightPhotoId: pair.right }
  if (await change(match)) setting.value = null
}
async function byTime() {
  const camera = clockOf(setting.value!.camera)
  const truth = { kind: 'tellTrueTime' as const, ...camera, photoId: pair.wrong, trueTime: pair.trueTime }
  if (await change(truth)) setting.value = null
}
async function byHand() {
  const seconds = pair.hours * 3600 + Math.sign(pair.hours || 1) * pair.minutes * 60
  if (await change({ kind: 'shiftCamera', ...clockOf(setting.value!.camera), seconds })) setting.value = null
}

function open(camera: CameraView) {
  setting.value = camera
  Object.assign(pair, {
    wrong: '',
    right: '',
    trueTime: '',
    hours: Math.trunc(camera.correctionSeconds / 3600),
    minutes: Math.abs(Math.trunc((camera.correctionSeconds % 3600) / 60)),
  })
}

const revision = () => calendar.value!.revision

const addStay = () =>
  stays.value.push({ place: '', zone: form.homeZone, from: `${props.album.firstDay}T12:00`, until: null })
</script>

<template>
  <div class="room two" data-testid="cameras-room">
    <datalist id="zones"><option v-for="z in zones ?? []" :key="z" :value="z"></option></datalist>
    <section class="room-panel">
      <h2 class="h5">Cameras</h2>
      <p class="form-text mt-0">
        Cameras' clocks are set by hand and forgotten. A correction is added to every picture of that camera; pictures
        move to their right day at once, and Undo moves them back.
      </p>
      <p v-if="cameras && cameras.cameras.length === 0" class="mb-0">No picture with a recorded time yet.</p>
      <div v-for="c in cameras?.cameras ?? []" :key="c.camera" class="camera" data-testid="camera">
        <div>
          <strong>{{ c.camera || 'Files that name no camera' }}</strong>
          <div class="small">
            {{ counted(c.photos, 'picture') }}, {{ c.span }};
            {{ c.withZone === c.photos ? 'all with a zone' : c.withZone ? `${c.withZone} with a zone` : 'no zones' }}
          </div>
          <div v-if="c.correctionWords" class="small">Clock set: {{ c.correctionWords }}</div>
          <div v-if="c.doubt" class="doubt-line">{{ c.doubt }}</div>
        </div>
        <div class="d-flex flex-column gap-1">
          <BButton v-if="c.doubtRemedy" size="sm" variant="primary" @click="accept(c.camera)">{{
            c.doubtRemedy
          }}</BButton>
          <BButton size="sm" variant="outline-dark" @click="open(c)">Set the clock</BButton>
          <BButton v-if="c.correctionWords" size="sm" variant="outline-dark" @click="takeBack(c)">As recorded</BButton>
        </div>
      </div>
      <div v-if="setting" class="setting">
        <h3 class="h6">The clock of {{ setting.camera || 'files that name no camera' }}</h3>
        <div class="row g-2 align-items-end">
          <div class="col-12">
            <label for="wrong" class="form-label">A picture of this camera</label>
            <BFormSelect id="wrong" v-model="pair.wrong" size="sm">
              <option value="">choose one</option>
              <option v-for="p in ownPhotos" :key="p.id" :value="p.id">
                {{ p.fileName }}, {{ p.dayLabel }} {{ p.time }}
              </option>
            </BFormSelect>
          </div>
          <div class="col-sm-8">
            <label for="right" class="form-label">shows the same moment as this one of another camera</label>
            <BFormSelect id="right" v-model="pair.right" size="sm">
              <option value="">choose one</option>
              <option v-for="p in otherPhotos" :key="p.id" :value="p.id">
                {{ p.fileName }}, {{ p.dayLabel }} {{ p.time }}
              </option>
            </BFormSelect>
          </div>
          <div class="col-sm-4">
            <BButton size="sm" variant="outline-dark" :disabled="!pair.wrong || !pair.right" @click="byPair"
              >Match the clocks</BButton
            >
          </div>
          <div class="col-sm-8">
            <label for="true-time" class="form-label">or was really taken at</label>
            <input id="true-time" v-model="pair.trueTime" type="datetime-local" class="form-control form-control-sm" />
          </div>
          <div class="col-sm-4">
            <BButton size="sm" variant="outline-dark" :disabled="!pair.wrong || !pair.trueTime" @click="byTime"
              >Use this time</BButton
            >
          </div>
          <div class="col-4">
            <label for="hours" class="form-label">or add hours</label>
            <input id="hours" v-model.number="pair.hours" type="number" class="form-control form-control-sm" />
          </div>
          <div class="col-4">
            <label for="minutes" class="form-label">minutes</label>
            <input
              id="minutes"
              v-model.number="pair.minutes"
              type="number"
              min="0"
              max="59"
              class="form-control form-control-sm"
            />
          </div>
          <div class="col-4"><BButton size="sm" variant="outline-dark" @click="byHand">Add</BButton></div>
          <div class="col-sm-8">
            <label for="left-on" class="form-label">or its clock stayed on the zone</label>
            <input
              id="left-on"
              :value="setting.leftOnZone ?? ''"
              list="zones"
              class="form-control form-control-sm"
              placeholder="Europe/London"
              @change="
                change({
                  kind: 'leaveCameraOnZone',
                  ...clockOf(setting.camera),
                  zone: ($event.target as HTMLInputElement).value,
                })
              "
            />
          </div>
          <div class="col-sm-4">
            <BButton size="sm" variant="outline-dark" @click="setting = null">Close</BButton>
          </div>
        </div>
      </div>
    </section>

    <section v-if="calendar" class="room-panel">
      <h2 class="h5">Dates & hours</h2>
      <div class="row g-2 align-items-end">
        <div v-if="calendar.kind === 'weekly'" class="col-sm-6">
          <label for="scheme" class="form-label">Weeks</label>
          <BFormSelect
            id="scheme"
            size="sm"
            :model-value="calendar.scheme"
            @update:model-value="
              change({
                kind: 'countWeeks',
                revision: calendar.revision,
                scheme: $event as typeof calendar.scheme,
              })
            "
          >
            <option value="iso">from Monday, ISO 8601</option>
            <option value="sundayFirst">from Sunday, 1 January in week 1</option>
            <option value="fromFirstDay">from the album's first day</option>
          </BFormSelect>
        </div>
        <div class="col-sm-6">
          <label for="order" class="form-label">Dates</label>
          <BFormSelect
            id="order"
            size="sm"
            :model-value="calendar.dateOrder"
            @update:model-value="
              change({
                kind: 'writeDates',
                revision: calendar.revision,
                order: $event as typeof calendar.dateOrder,
                clock: calendar.clock,
              })
            "
          >
            <option value="dayMonth">20 February 2026</option>
            <option value="monthDay">February 20, 2026</option>
          </BFormSelect>
        </div>
        <div class="col-sm-6">
          <label for="clock" class="form-label">Hours</label>
          <BFormSelect
            id="clock"
            size="sm"
            :model-value="calendar.clock"
            @update:model-value="
              change({
                kind: 'writeDates',
                revision: calendar.revision,
                order: calendar.dateOrder,
                clock: $event as typeof calendar.clock,
              })
            "
          >
            <option value="twentyFour">19:00</option>
            <option value="twelve">7 p.m.</option>
          </BFormSelect>
        </div>
        <form
          class="col-sm-6 d-flex gap-1 align-items-end"
          @submit.prevent="change({ kind: 'setHomeZone', revision: revision(), homeZone: form.homeZone })"
        >
          <div class="flex-grow-1">
            <label for="home-zone" class="form-label">Home zone</label>
            <input id="home-zone" v-model="form.homeZone" list="zones" class="form-control form-control-sm" />
          </div>
          <BButton type="submit" size="sm" variant="outline-dark" :disabled="form.homeZone === calendar.homeZone"
            >Set</BButton
          >
        </form>
        <form
          class="col-sm-6 d-flex gap-1 align-items-end"
          @submit.prevent="change({ kind: 'setCutOff', revision: revision(), cutOff: form.cutOff })"
        >
          <div class="flex-grow-1">
            <label for="cut-off" class="form-label">Photos taken before this belong to the day before</label>
            <input id="cut-off" v-model="form.cutOff" type="time" class="form-control form-control-sm" />
          </div>
          <BButton type="submit" size="sm" variant="outline-dark" :disabled="form.cutOff === calendar.cutOff"
            >Set</BButton
          >
        </form>
      </div>

      <template v-if="calendar.kind === 'trip'">
        <h2 class="h5 mt-4">Places</h2>
        <p class="form-text mt-0">
          Where the trip slept, in order, each by the clock of the place. Pictures without a zone get the zone of their
          stay; days follow you over the date line.
        </p>
        <form @submit.prevent="change({ kind: 'setStays', revision: revision(), stays })">
          <div v-for="(stay, i) in stays" :key="i" class="stay">
            <div>
              <label :for="`place-${i}`" class="form-label">Place</label>
              <input :id="`place-${i}`" v-model="stay.place" class="form-control form-control-sm" />
            </div>
            <div>
              <label :for="`zone-${i}`" class="form-label">Zone</label>
              <input :id="`zone-${i}`" v-model="stay.zone" list="zones" class="form-control form-control-sm" />
            </div>
            <div>
              <label :for="`from-${i}`" class="form-label">Arrived</label>
              <input :id="`from-${i}`" v-model="stay.from" type="datetime-local" class="form-control form-control-sm" />
            </div>
            <div>
              <label :for="`until-${i}`" class="form-label">Left (optional)</label>
              <input
                :id="`until-${i}`"
                v-model="stay.until"
                type="datetime-local"
                class="form-control form-control-sm"
              />
            </div>
            <button
              type="button"
              class="btn btn-sm btn-outline-dark"
              :aria-label="`Delete the place ${stay.place || 'this place'}`"
              @click="stays.splice(i, 1)"
            >
              Delete
            </button>
          </div>
          <div class="d-flex gap-2 mt-2">
            <BButton size="sm" variant="outline-dark" @click="addStay">Add a place</BButton>
            <BButton type="submit" size="sm" variant="primary">Save places</BButton>
          </div>
        </form>
      </template>
    </section>

    <ReminderPanel :album="album" />
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(26rem, 1fr));
  gap: 1rem;
  align-items: start;
  align-content: start;
}
.camera {
  display: flex;
  justify-content: space-between;
  gap: 1rem;
  padding: 0.6rem 0;
  border-top: 1px solid var(--line);
}
.camera .btn {
  white-space: nowrap;
}
.doubt-line {
  margin-top: 0.3rem;
  padding: 0.2rem 0.6rem;
  border-left: 6px solid var(--warn);
  background: var(--warn-pale);
}
.setting {
  margin-top: 0.6rem;
  padding: 0.8rem;
  border: 2px solid var(--zest);
  border-radius: 0.5rem;
}
.stay {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem;
  align-items: end;
  padding: 0.3rem 0 0.7rem;
  border-bottom: 1px solid var(--line);
}
.stay .btn {
  grid-column: 1 / -1;
  justify-self: end;
}
@media (max-width: 800px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
