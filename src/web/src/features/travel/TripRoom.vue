<script setup lang="ts">
import { computed, ref } from 'vue'
import type { AlbumEdit, AlbumEditAnswer, AlbumView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum } from '../../shared/edits'
import InsertedAlbums from '../keeping/InsertedAlbums.vue'
import LegsPanel from './LegsPanel.vue'
import MoneyPanel from './MoneyPanel.vue'
import TripDays from './TripDays.vue'
import { addLegsFromPictures, importTrack, importWeather, useTrip } from './queries'

/** The trip log: where one went, by what, how the weather was, and what it cost. */
const props = defineProps<{ album: AlbumView }>()
const { data, error } = useTrip(() => props.album.id)
const { act } = useAct(() => props.album.id)
const busy = ref(false)
const tracks = ref<HTMLInputElement>()
const firstDay = computed(() => props.album.units[0]?.firstDay ?? '')
const map = computed(() =>
  data.value?.legs.some((l) => l.hasWay) ? `/api/albums/${props.album.id}/trip/map.png?v=${data.value.revision}` : '',
)

async function doing(call: () => Promise<AlbumEditAnswer>) {
  busy.value = true
  try {
    return await act(call)
  } finally {
    busy.value = false
  }
}
const edit = (change: AlbumEdit) => doing(() => editAlbum(props.album.id, change))

async function takeTracks(files: FileList | null) {
  for (const file of files ?? []) await doing(() => importTrack(props.album.id, file))
  if (tracks.value) tracks.value.value = ''
}
</script>

<template>
  <div class="room" data-testid="trip">
    <section class="room-panel mb-3" aria-labelledby="trip-head">
      <h2 id="trip-head" class="h5 mb-1">Trip log</h2>
      <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
      <div class="row g-4">
        <div class="col-12 col-lg-5">
          <p role="status">{{ data?.words ?? 'Reading …' }}</p>
          <div class="d-flex flex-wrap gap-2">
            <BButton size="sm" variant="primary" :disabled="busy" @click="tracks?.click()">Import tracks (GPX)</BButton>
            <input
              ref="tracks"
              type="file"
              multiple
              accept=".gpx"
              class="visually-hidden"
              tabindex="-1"
              aria-label="Track files"
              data-testid="track-files"
              @change="takeTracks(($event.target as HTMLInputElement).files)"
            />
            <BButton
              size="sm"
              variant="outline-dark"
              :disabled="busy"
              @click="doing(() => addLegsFromPictures(album.id))"
              >Take legs from the pictures</BButton
            >
          </div>
          <p v-if="data?.fromTracks" class="visually-quiet mt-2 mb-0">
            {{ data.fromTracks === 1 ? '1 picture' : `${data.fromTracks} pictures` }} without a position lie where the
            track was at that moment.
          </p>
        </div>
        <figure v-if="map" class="col-12 col-lg-7 mb-0">
          <img :src="map" alt="Map of all legs" class="map" width="960" height="720" loading="lazy" />
          <figcaption class="visually-quiet">
            Coast and borders: Natural Earth. Rivers: GSHHG. Places: GeoNames (CC BY 4.0). Add a card “The way” to a
            week or day to print it.
          </figcaption>
        </figure>
      </div>
    </section>
    <template v-if="data">
      <LegsPanel :trip="data" :first-day="firstDay" :busy="busy" :edit="edit" />
      <TripDays
        :trip="data"
        :busy="busy"
        :edit="edit"
        :take="(file: File) => doing(() => importWeather(album.id, file))"
      />
      <MoneyPanel :trip="data" :first-day="firstDay" :busy="busy" :edit="edit" />
      <InsertedAlbums :album="album" />
    </template>
  </div>
</template>

<style scoped>
.map {
  width: min(100%, 40rem);
  height: auto;
  border: 1px solid var(--line);
}
</style>
