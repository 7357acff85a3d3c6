<script setup lang="ts">
import { ref } from 'vue'
import type { AlbumEdit, TripDayView, TripView } from '../../api/client'

/** The days of a trip: how far, how the weather was, what was spent. */
const props = defineProps<{
  trip: TripView
  busy: boolean
  edit: (change: AlbumEdit) => Promise<unknown>
  take: (file: File) => Promise<unknown>
}>()
const input = ref<HTMLInputElement>()
const open = ref('')
const weather = ref({ low: '', high: '', sky: '' })

const degrees = (n: number) => `${n < 0 ? '−' : ''}${Math.abs(n)}`
const said = (day: TripDayView) =>
  day.sky === null ? '' : `${day.sky}, ${degrees(day.lowCelsius!)} to ${degrees(day.highCelsius!)} °C`

function change(day: TripDayView) {
  open.value = day.day
  weather.value = {
    low: day.lowCelsius?.toString() ?? '',
    high: day.highCelsius?.toString() ?? '',
    sky: day.sky ?? '',
  }
}

async function save(day: TripDayView) {
  const noted = {
    day: day.day,
    lowCelsius: Number(weather.value.low),
    highCelsius: Number(weather.value.high),
    sky: weather.value.sky,
  }
  if (await props.edit({ kind: 'noteWeather', revision: props.trip.revision, days: [noted] })) open.value = ''
}

async function takeAll(files: FileList | null) {
  for (const file of files ?? []) await props.take(file)
  if (input.value) input.value.value = ''
}
</script>

<template>
  <section v-if="trip.days.length" class="room-panel mb-3" aria-labelledby="days-head">
    <div class="d-flex gap-2 align-items-center mb-2">
      <h3 id="days-head" class="h6 mb-0">Days and weather</h3>
      <BButton size="sm" variant="outline-dark" class="ms-auto" :disabled="busy" @click="input?.click()"
        >Import weather (CSV, JSON)</BButton
      >
      <input
        ref="input"
        type="file"
        multiple
        accept=".csv,.tsv,.txt,.json"
        class="visually-hidden"
        tabindex="-1"
        aria-label="Weather files"
        data-testid="weather-files"
        @change="takeAll(($event.target as HTMLInputElement).files)"
      />
    </div>
    <div class="table-responsive">
      <table class="table table-sm mb-0">
        <thead>
          <tr>
            <th scope="col">Day</th>
            <th scope="col">Way</th>
            <th scope="col">Weather</th>
            <th scope="col">Spent</th>
            <th scope="col"><span class="visually-hidden">Change</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="day in trip.days" :key="day.day">
            <td class="text-nowrap">{{ day.label }}</td>
            <td class="text-nowrap">{{ day.length ?? '' }}</td>
            <td v-if="open !== day.day">
              {{ said(day) }}
              <span v-if="day.source === 'almanac'" class="visually-quiet">made up by the almanac</span>
            </td>
            <td v-else>
              <form class="d-flex flex-wrap gap-2" @submit.prevent="save(day)">
                <BFormInput
                  v-model="weather.low"
                  type="number"
                  size="sm"
                  required
                  class="degrees"
                  :aria-label="`Lowest of ${day.label} in °C`"
                />
                <BFormInput
                  v-model="weather.high"
                  type="number"
                  size="sm"
                  required
                  class="degrees"
                  :aria-label="`Highest of ${day.label} in °C`"
                />
                <BFormInput
                  v-model="weather.sky"
                  size="sm"
                  required
                  maxlength="40"
                  class="sky"
                  :aria-label="`Sky of ${day.label}`"
                />
                <BButton type="submit" size="sm" variant="primary" :disabled="busy">Save</BButton>
                <BButton size="sm" variant="outline-dark" @click="open = ''">Cancel</BButton>
              </form>
            </td>
            <td class="text-nowrap">{{ day.spent ?? '' }}</td>
            <td class="text-nowrap text-end">
              <BButton
                v-if="open !== day.day"
                size="sm"
                variant="outline-dark"
                :aria-label="`Note weather of ${day.label}`"
                @click="change(day)"
                >Note weather</BButton
              >
              <BButton
                v-if="day.source === 'noted'"
                size="sm"
                variant="outline-dark"
                class="ms-1"
                :disabled="busy"
                :aria-label="`Forget the weather noted for ${day.label}`"
                @click="edit({ kind: 'forgetWeather', revision: trip.revision, day: day.day })"
                >Forget</BButton
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.degrees {
  width: 5rem;
}
.sky {
  width: 11rem;
}
</style>
