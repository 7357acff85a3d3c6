<script setup lang="ts">
import { counted } from '../../shared/words'
import { reactive, ref } from 'vue'
import type { AlbumView, PhotoView, SeriesView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useAct } from '../../shared/act'
import { useSeries } from './queries'
import { usePhotoEdits } from './edits'

const props = defineProps<{ album: AlbumView }>()
const { act } = useAct(() => props.album.id)
const edit = usePhotoEdits(() => props.album.id)
const { data: list } = useSeries(() => props.album.id)
const making = ref(false)
const form = reactive({ name: '', around: '08:00', minutes: 30, weekday: '' })
const weekdays = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'] as const

async function begin() {
  const made = await act(() =>
    editAlbum(props.album.id, {
      kind: 'setSeries',
      revision: list.value!.revision,
      seriesId: null,
      name: form.name,
      around: form.around,
      minutes: form.minutes,
      weekday: (form.weekday || null) as SeriesView['weekday'],
    }),
  )
  if (!made) return
  making.value = false
  form.name = ''
}

const drop = (s: SeriesView) =>
  act(() => editAlbum(props.album.id, { kind: 'deleteSeries', revision: list.value!.revision, seriesId: s.id }))
const choose = (s: SeriesView, photo: PhotoView) => edit([photo], { kind: 'joinSeries', seriesId: s.id })
const takeOut = (photo: PhotoView) => edit([photo], { kind: 'leaveSeries' })
</script>

<template>
  <div class="room" data-testid="series-room">
    <div class="room-panel mb-3">
      <p class="mb-2">
        The same kind of picture again and again: the same window each morning, each Sunday's walk. A series looks for
        pictures near its time of day and shows its gaps.
      </p>
      <BButton v-if="!making" variant="primary" size="sm" @click="making = true">Add a series</BButton>
      <form v-else class="row g-2 align-items-end" @submit.prevent="begin">
        <div class="col-md-4">
          <label for="series-name" class="form-label">What it shows</label>
          <input id="series-name" v-model="form.name" class="form-control form-control-sm" maxlength="80" required />
        </div>
        <div class="col-md-2">
          <label for="series-around" class="form-label">About what time</label>
          <input id="series-around" v-model="form.around" type="time" class="form-control form-control-sm" />
        </div>
        <div class="col-md-2">
          <label for="series-minutes" class="form-label">Within, minutes</label>
          <input
            id="series-minutes"
            v-model.number="form.minutes"
            type="number"
            min="1"
            max="720"
            class="form-control form-control-sm"
          />
        </div>
        <div class="col-md-2">
          <label for="series-weekday" class="form-label">How often</label>
          <BFormSelect id="series-weekday" v-model="form.weekday" size="sm">
            <option value="">every day</option>
            <option v-for="d in weekdays" :key="d" :value="d">each {{ d }}</option>
          </BFormSelect>
        </div>
        <div class="col-md-2 d-flex gap-2">
          <BButton type="submit" variant="primary" size="sm">Add</BButton>
          <BButton variant="outline-dark" size="sm" @click="making = false">Cancel</BButton>
        </div>
      </form>
    </div>
    <section v-for="s in list?.series ?? []" :key="s.id" class="mb-4" :aria-label="`Series ${s.name}`">
      <div class="d-flex align-items-baseline gap-3 flex-wrap">
        <h2 class="h5 mb-1">{{ s.name }}</h2>
        <span class="visually-quiet"
          >around {{ s.around }}, {{ s.weekday ? `each ${s.weekday}` : 'every day' }} · {{ s.chosen }} chosen,
          {{ counted(s.gaps, 'gap') }}</span
        >
        <button type="button" class="btn btn-sm btn-outline-dark ms-auto" @click="drop(s)">Delete series</button>
      </div>
      <ul class="strip" tabindex="0" :aria-label="`Days of ${s.name}`">
        <li v-for="d in s.days" :key="d.day" :class="{ gap: !d.chosen && d.suggested.length === 0 }">
          <span class="small">{{ d.dayLabel }}</span>
          <template v-if="d.chosen">
            <img :src="d.chosen.picture + '512'" :alt="`Chosen: ${d.chosen.fileName}`" loading="lazy" />
            <button
              type="button"
              class="btn btn-sm btn-outline-dark"
              :aria-label="`Remove ${d.chosen.fileName}`"
              @click="takeOut(d.chosen)"
            >
              Remove
            </button>
          </template>
          <template v-else-if="d.suggested.length">
            <button
              v-for="p in d.suggested.slice(0, 2)"
              :key="p.id"
              type="button"
              class="suggestion"
              :aria-label="`Choose ${p.fileName} of ${p.time}`"
              @click="choose(s, p)"
            >
              <img :src="p.picture + '512'" alt="" loading="lazy" />
              <span class="small">{{ p.time }}?</span>
            </button>
          </template>
          <span v-else class="small gap-word">gap</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.strip {
  list-style: none;
  margin: 0;
  padding: 0 0 0.5rem;
  display: flex;
  gap: 0.5rem;
  overflow-x: auto;
}
.strip li {
  flex: none;
  width: 7.4rem;
  min-height: 6.4rem;
  display: flex;
  flex-direction: column;
  gap: 0.25rem;
  padding: 0.4rem;
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 0.4rem;
}
.strip li.gap {
  border: 1px dashed var(--warn);
  background: none;
}
.gap-word {
  color: var(--warn);
}
.strip img {
  width: 100%;
  height: 64px;
  object-fit: cover;
  border-radius: 3px;
  display: block;
}
.suggestion {
  border: 2px dashed var(--zest);
  border-radius: 4px;
  background: none;
  padding: 1px;
}
.suggestion img {
  height: 44px;
}
</style>
