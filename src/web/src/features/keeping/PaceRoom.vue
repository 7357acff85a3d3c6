<script setup lang="ts">
import { StorageSerializers, useLocalStorage, useTimestamp } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { AlbumView, PaceView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum } from '../../shared/edits'
import { unitPlace } from '../../shared/places'
import { usePace, type CatchUpOrder } from './queries'

type Weekday = PaceView['eveningsOn'][number]

/** How long a spread takes, what is open, and an evening for each of it. */
const props = defineProps<{ album: AlbumView }>()
const order = ref<CatchUpOrder>('currentFirst')
const by = ref('')
const { data, error } = usePace(() => props.album.id, order, by)
const { act } = useAct(() => props.album.id)
const busy = ref(false)
const days: [Weekday, string][] = [
  ['monday', 'Mon'],
  ['tuesday', 'Tue'],
  ['wednesday', 'Wed'],
  ['thursday', 'Thu'],
  ['friday', 'Fri'],
  ['saturday', 'Sat'],
  ['sunday', 'Sun'],
]
const evenings = ref<Weekday[]>([])
const minutes = ref(60)
const lag = ref(2)
const time = ref('19:30')
watch(
  data,
  (now) =>
    now && ((evenings.value = [...now.eveningsOn]), (minutes.value = now.minutesAnEvening), (lag.value = now.lagWeeks)),
  { immediate: true },
)
async function setHabit() {
  busy.value = true
  try {
    await act(() =>
      editAlbum(props.album.id, {
        kind: 'setHabit',
        revision: data.value!.revision,
        evenings: evenings.value,
        minutesAnEvening: Number(minutes.value),
        lagWeeks: Number(lag.value),
      }),
    )
  } finally {
    busy.value = false
  }
}
/** A timer runs in this browser, also while the page is closed; what it ran is kept with the album when it stops. */
const timer = useLocalStorage<{ unitId: string; title: string; since: number } | null>(
  `zesty.timer.${props.album.id}`,
  null,
  { serializer: StorageSerializers.object },
)
const now = useTimestamp({ interval: 1000 })
const ran = computed(() => (timer.value ? Math.max(0, Math.floor((now.value - timer.value.since) / 60000)) : 0))
const start = (unitId: string, title: string) => (timer.value = { unitId, title, since: Date.now() })

async function stop() {
  const { unitId } = timer.value!
  const minutes = Math.min(720, Math.max(1, ran.value))
  const done = await act(() =>
    editAlbum(props.album.id, { kind: 'timeWork', revision: data.value!.revision, unitId, minutes }),
  )
  if (done) timer.value = null
}
const calendar = computed(
  () => `/api/albums/${props.album.id}/evenings.ics?order=${order.value}&time=${encodeURIComponent(time.value)}`,
)
</script>

<template>
  <div class="room" data-testid="pace">
    <section class="room-panel mb-3">
      <h2 class="h5 mb-1">Pace</h2>
      <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
      <p class="mb-1" role="status">{{ data?.words ?? 'Counting …' }}</p>
      <p v-if="data" class="visually-quiet mb-0">
        {{
          data.isMeasured
            ? `A spread takes you ${data.minutesEach} minutes, measured on this album without long pauses.`
            : `A spread is taken to need ${data.minutesEach} minutes until this album has shown what it needs.`
        }}
      </p>
    </section>
    <section v-if="timer" class="room-panel mb-3 d-flex gap-3 align-items-center" aria-label="Timer">
      <span data-testid="timer">At {{ timer.title }} for {{ ran }} min</span>
      <BButton size="sm" variant="primary" :disabled="!data" @click="stop">Stop and add</BButton>
      <BButton size="sm" variant="outline-dark" @click="timer = null">Discard</BButton>
    </section>
    <section class="room-panel mb-3">
      <h3 class="h6">Your evenings</h3>
      <form class="d-flex flex-wrap gap-3 align-items-end" @submit.prevent="setHabit">
        <fieldset class="d-flex flex-wrap gap-2">
          <legend class="form-label mb-0 fs-6">On</legend>
          <BFormCheckbox v-for="[day, name] in days" :key="day" v-model="evenings" :value="day">{{
            name
          }}</BFormCheckbox>
        </fieldset>
        <div>
          <label for="evening-minutes" class="form-label mb-0">Minutes each</label>
          <BFormInput id="evening-minutes" v-model="minutes" type="number" min="5" max="600" size="sm" />
        </div>
        <div>
          <label for="lag" class="form-label mb-0">Weeks behind that are fine</label>
          <BFormInput id="lag" v-model="lag" type="number" min="0" max="52" size="sm" />
        </div>
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy || !data">Set evenings</BButton>
      </form>
    </section>
    <section class="room-panel mb-3">
      <div class="d-flex flex-wrap gap-3 align-items-end mb-2">
        <h3 class="h6 mb-1">Plan</h3>
        <div>
          <label for="catch-up-order" class="form-label mb-0">Work first at</label>
          <BFormSelect id="catch-up-order" v-model="order" size="sm">
            <option value="currentFirst">the current week</option>
            <option value="oldestFirst">the oldest week</option>
            <option value="alternating">both in turn</option>
          </BFormSelect>
        </div>
        <div>
          <label for="catch-up-by" class="form-label mb-0">Caught up by</label>
          <BFormInput id="catch-up-by" v-model="by" type="date" size="sm" />
        </div>
        <div>
          <label for="evening-time" class="form-label mb-0">Begin at</label>
          <BFormInput id="evening-time" v-model="time" size="sm" />
        </div>
        <a class="btn btn-sm btn-outline-dark" :href="calendar" download>Export evenings (.ics)</a>
      </div>
      <ol v-if="data?.evenings.length" class="evenings">
        <li v-for="e in data.evenings" :key="e.day">
          <strong>{{ e.label }}</strong> · {{ e.minutes }} min · {{ e.words }}
        </li>
      </ol>
      <p v-else-if="data" class="mb-0">No evening is needed.</p>
    </section>
    <section v-if="data?.open.length" class="room-panel">
      <h3 class="h6">Open now</h3>
      <ul class="evenings">
        <li v-for="o in data.open" :key="o.unitId">
          <RouterLink :to="unitPlace(album.id, o.unitId, 'place')">{{ o.title }}</RouterLink> · about
          {{ o.minutes }} min; a thin version: {{ o.thin }}
          <BButton
            v-if="!timer"
            size="sm"
            variant="link"
            class="p-0"
            :aria-label="`Start timer for ${o.title}`"
            @click="start(o.unitId, o.title)"
            >Start timer</BButton
          >
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.evenings {
  columns: 2 22rem;
  padding-left: 1.4rem;
  margin: 0;
}
</style>
