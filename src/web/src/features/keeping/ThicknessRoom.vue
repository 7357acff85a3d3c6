<script setup lang="ts">
import { ref, watch } from 'vue'
import type { AlbumEdit, AlbumView, RingsView, VolumeView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum } from '../../shared/edits'
import ChangesDialog from '../../shared/ChangesDialog.vue'
import { usePreview } from '../../shared/preview'
import BulkMap from './BulkMap.vue'
import InsertedAlbums from './InsertedAlbums.vue'
import { useThickness } from './queries'

/** How thick the album is, when its rings are full, and where a further volume begins. */
const props = defineProps<{ album: AlbumView }>()
const { data, error } = useThickness(() => props.album.id)
const { act } = useAct(() => props.album.id)
const busy = ref(false)
const rings = ref<{ shape: RingsView['shape']; diameter: string; holds: string }>({
  shape: 'd',
  diameter: '',
  holds: '',
})
watch(data, (now) => now && (rings.value = { ...now.rings, holds: now.rings.holds ?? '' }), { immediate: true })

async function edit(change: AlbumEdit) {
  busy.value = true
  try {
    await act(() => editAlbum(props.album.id, change))
  } finally {
    busy.value = false
  }
}
const setRings = () =>
  edit({
    kind: 'setRings',
    revision: data.value!.revision,
    shape: rings.value.shape,
    diameter: rings.value.diameter,
    holds: rings.value.holds || null,
  })
const starts = () => (data.value?.volumes ?? []).slice(1).map((v) => v.startsWith)
const { asked, ask } = usePreview(() => props.album.id)
const setVolumes = (startWith: string[]) =>
  ask((preview) =>
    editAlbum(props.album.id, { kind: 'setVolumes', revision: data.value!.revision, startWith }, preview),
  )
const proposed = () => (data.value?.proposed ?? []).filter((p) => p.title)
const startHere = ref('')
const percent = (share: number) => `${Math.round(100 * share)} %`
const width = (share: number) => `${Math.min(100, 100 * share)}%`
const fits = (volume: VolumeView) => volume.endShare <= 1
</script>

<template>
  <div class="room" data-testid="thickness">
    <section class="room-panel mb-3">
      <h2 class="h5 mb-1">Thickness</h2>
      <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
      <p class="mb-0" role="status">{{ data?.words ?? 'Measuring …' }}</p>
      <ul v-if="data?.proposed.length" class="mt-2 mb-2">
        <li v-for="p in data.proposed" :key="p.unitId">{{ p.words }}</li>
      </ul>
      <BButton
        v-if="proposed().length"
        variant="primary"
        size="sm"
        :disabled="busy"
        @click="setVolumes(proposed().map((p) => p.unitId))"
        >Use these volumes</BButton
      >
    </section>
    <section class="room-panel mb-3">
      <h3 class="h6">Rings</h3>
      <form class="d-flex flex-wrap gap-3 align-items-end" @submit.prevent="setRings">
        <div>
          <label for="ring-shape" class="form-label mb-0">Shape</label>
          <BFormSelect id="ring-shape" v-model="rings.shape" size="sm">
            <option value="d">D rings</option>
            <option value="round">Round rings</option>
          </BFormSelect>
        </div>
        <div>
          <label for="ring-diameter" class="form-label mb-0">Diameter</label>
          <BFormInput id="ring-diameter" v-model="rings.diameter" size="sm" />
        </div>
        <div>
          <label for="ring-holds" class="form-label mb-0">Measured stack they close over</label>
          <BFormInput
            id="ring-holds"
            v-model="rings.holds"
            size="sm"
            :placeholder="`${data?.rings.capacity ?? ''}, usual`"
          />
        </div>
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy || !data">Set rings</BButton>
      </form>
      <p class="form-text mb-0">
        Fill the binder until its rings only just close, lay a ruler on the leaves, and type what you read.
      </p>
    </section>
    <section
      v-for="(volume, i) in data?.volumes"
      :key="volume.startsWith"
      class="room-panel mb-3"
      :aria-label="volume.name"
    >
      <div class="d-flex flex-wrap gap-4">
        <BulkMap :bulk="volume.bulk" :name="volume.name" />
        <div class="flex-grow-1">
          <h3 class="h6 mb-1">{{ volume.name }}</h3>
          <p class="mb-1">{{ volume.from }} to {{ volume.until }}</p>
          <div class="gauge" aria-hidden="true">
            <span class="end" :class="{ over: !fits(volume) }" :style="{ width: width(volume.endShare) }"></span>
            <span class="now" :style="{ width: width(volume.nowShare) }"></span>
          </div>
          <p class="mb-2">
            {{ volume.now }} thick now ({{ percent(volume.nowShare) }} of the rings), {{ volume.atTheEnd }} with
            everything in it ({{ percent(volume.endShare) }}).
            <strong v-if="!fits(volume)">The rings will not close.</strong>
          </p>
          <BButton
            v-if="i > 0"
            size="sm"
            variant="outline-dark"
            :disabled="busy"
            @click="setVolumes(starts().filter((s) => s !== volume.startsWith))"
            >Merge into volume {{ i }}</BButton
          >
        </div>
      </div>
    </section>
    <InsertedAlbums :album="album" />
    <ChangesDialog v-model="asked" />
    <section class="room-panel">
      <h3 class="h6">Start a new volume</h3>
      <form class="d-flex flex-wrap gap-2 align-items-end" @submit.prevent="setVolumes([...starts(), startHere])">
        <div>
          <label for="volume-start" class="form-label mb-0">It begins with</label>
          <BFormSelect id="volume-start" v-model="startHere" size="sm">
            <option value="">choose</option>
            <option v-for="u in album.units.slice(1)" :key="u.id" :value="u.id">{{ u.title }}</option>
          </BFormSelect>
        </div>
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy || !startHere"
          >Start volume here</BButton
        >
        <a
          class="btn btn-sm btn-outline-dark"
          :href="`/api/albums/${album.id}/inserts.pdf?paper=letter&margin=5+mm`"
          download
          >Labels and spines (PDF)</a
        >
      </form>
    </section>
  </div>
</template>

<style scoped>
.gauge {
  position: relative;
  height: 0.9rem;
  max-width: 32rem;
  margin: 0.3rem 0;
  border: 1px solid var(--line);
  border-radius: 3px;
  overflow: hidden;
}
.gauge span {
  position: absolute;
  inset: 0 auto 0 0;
}
.gauge .end {
  background: repeating-linear-gradient(45deg, var(--line) 0 4px, transparent 4px 8px);
}
.gauge .end.over {
  background: repeating-linear-gradient(45deg, var(--zest) 0 4px, transparent 4px 8px);
}
.gauge .now {
  background: var(--zest);
}
</style>
