<script setup lang="ts">
import { computed, ref } from 'vue'
import { answer, api, type AlbumView } from '../../api/client'
import { useAct } from '../../shared/act'
import { asBytes } from '../../shared/upload'

const props = defineProps<{ album: AlbumView }>()
const { act } = useAct(() => props.album.id)
const weekday = ref(7)
const time = ref('19:30')
const minutes = ref(60)
const picker = ref<HTMLInputElement>()
const hourly = computed(() => props.album.kind === 'documentedDay')
const address = computed(() => {
  const file = `/api/albums/${props.album.id}/reminders.ics`
  return hourly.value ? file : `${file}?weekday=${weekday.value}&time=${time.value}&minutes=${minutes.value}`
})
const weekdays = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']

async function read(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  await act(() =>
    answer(
      api.POST('/api/albums/{id}/events', {
        params: { path: { id: props.album.id } },
        ...asBytes(file, 'text/calendar'),
      }),
    ),
  )
}
</script>

<template>
  <section class="room-panel" aria-label="Calendars in and out">
    <h2 class="h5">Calendars in and out</h2>
    <p class="form-text mt-0">
      {{
        hourly
          ? 'A reminder for each hour of the day, for the calendar on your phone.'
          : 'A reminder for the weekly sit-down, for the calendar you use.'
      }}
    </p>
    <div v-if="!hourly" class="row g-2">
      <div class="col-5">
        <label for="weekday" class="form-label">Each</label>
        <BFormSelect id="weekday" v-model.number="weekday" size="sm">
          <option v-for="(name, i) in weekdays" :key="name" :value="i + 1">{{ name }}</option>
        </BFormSelect>
      </div>
      <div class="col-4">
        <label for="sit-time" class="form-label">at</label>
        <input id="sit-time" v-model="time" type="time" class="form-control form-control-sm" />
      </div>
      <div class="col-3">
        <label for="sit-minutes" class="form-label">minutes</label>
        <input
          id="sit-minutes"
          v-model.number="minutes"
          type="number"
          min="5"
          max="600"
          class="form-control form-control-sm"
        />
      </div>
    </div>
    <div class="d-flex gap-2 mt-2 flex-wrap">
      <a class="btn btn-sm btn-outline-dark" :href="address" download data-testid="reminders">Save reminders (.ics)</a>
      <BButton size="sm" variant="outline-dark" @click="picker?.click()">Read events from a calendar (.ics)</BButton>
    </div>
    <p class="form-text mb-0">
      Events of an imported calendar become notes of their days, to write from. Reading the same file again adds nothing
      twice.
    </p>
    <input
      ref="picker"
      type="file"
      accept=".ics,text/calendar"
      class="visually-hidden"
      tabindex="-1"
      aria-label="Calendar file"
      data-testid="ics-picker"
      @change="read"
    />
  </section>
</template>
