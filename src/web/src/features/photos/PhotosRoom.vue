<script setup lang="ts">
import { counted } from '../../shared/words'
import { useQuery } from '@tanstack/vue-query'
import { computed, nextTick, reactive, ref, watch } from 'vue'
import { answer, api, type AlbumView, type PhotoEdit, type PhotoFilter, type PhotoView } from '../../api/client'
import { singleKeys } from '../../shared/shortcuts'
import { keys } from '../../shared/queries'
import { useCameras } from '../dates/queries'
import { usePhotoPages } from './queries'
import { cullKeys, usePhotoEdits } from './edits'
import PhotoGrid from './PhotoGrid.vue'
import PhotoViewer from './PhotoViewer.vue'

const props = defineProps<{ album: AlbumView }>()
const edit = usePhotoEdits(() => props.album.id)
const { data: cameras } = useCameras(() => props.album.id)
const form = reactive({ show: 'all', camera: '', orientation: '', favourite: '', kind: '', unit: '' })
const grid = ref<InstanceType<typeof PhotoGrid>>()
const selected = ref(new Set<string>())
const viewing = ref('')
const bulkDay = ref('')
let last = -1

const filter = computed<PhotoFilter>(() => ({
  Take: 500,
  ...(form.show === 'noDate' || form.show === 'outside' || form.show === 'leftOut' ? { Scope: form.show } : {}),
  ...(form.show === 'unplaced' ? { Unplaced: true } : {}),
  ...(form.show === 'tooSmall' ? { TooSmall: true } : {}),
  ...(form.show === 'lookalikes' ? { Lookalikes: true } : {}),
  ...(['undecided', 'keep', 'maybe'].includes(form.show) ? { Verdict: form.show } : {}),
  ...(form.camera ? { Camera: form.camera === '-' ? '' : form.camera } : {}),
  ...(form.orientation ? { Orientation: form.orientation } : {}),
  ...(form.favourite ? { Favourite: Number(form.favourite) } : {}),
  ...(form.kind ? { Kind: form.kind } : {}),
  ...(form.unit ? { UnitId: form.unit } : {}),
}))
const { data, error, fetchNextPage, hasNextPage, isFetchingNextPage } = usePhotoPages(() => props.album.id, filter)
const photos = computed(() => data.value?.pages.flatMap((p) => p.photos) ?? [])
const { data: count } = useQuery({
  queryKey: computed(() => keys.of(props.album.id, 'count', filter.value)),
  queryFn: () =>
    answer(
      api.GET('/api/albums/{albumId}/photos/count', {
        params: { path: { albumId: props.album.id }, query: filter.value },
      }),
    ),
})
const titles = computed(() => new Map(props.album.units.map((u) => [u.id, `${u.title} · ${u.label}`])))
const headingOf = (photo: PhotoView) =>
  (photo.unitId && titles.value.get(photo.unitId)) ?? (photo.dayLabel ? 'Not in the album' : 'No date')
const chosen = computed(() => photos.value.filter((p) => selected.value.has(p.id)))

watch(filter, () => {
  selected.value = new Set()
  last = -1
})

function more() {
  if (hasNextPage.value && !isFetchingNextPage.value) void fetchNextPage()
}

function select(photo: PhotoView, range: boolean) {
  const at = photos.value.findIndex((p) => p.id === photo.id)
  const on = !selected.value.has(photo.id)
  const from = range && last >= 0 ? Math.min(last, at) : at
  const to = range && last >= 0 ? Math.max(last, at) : at
  const next = new Set(selected.value)
  for (const p of photos.value.slice(from, to + 1)) {
    if (on) next.add(p.id)
    else next.delete(p.id)
  }
  selected.value = next
  last = at
}

async function bulk(change: PhotoEdit) {
  if (await edit(chosen.value, change)) selected.value = new Set()
}

async function onKey(photo: PhotoView, event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey || !singleKeys.value) return
  const key = event.key.toLowerCase()
  if (key === ' ') {
    event.preventDefault()
    event.stopPropagation()
    select(photo, event.shiftKey)
    return
  }
  const what = cullKeys[key]
  if (!what) return
  event.preventDefault()
  event.stopPropagation()
  const at = photos.value.findIndex((p) => p.id === photo.id)
  const here = document.activeElement
  if ((await edit([photo], what)) && what.kind === 'judgePhoto') {
    await nextTick()
    // Whoever has gone on meanwhile, to another picture or into the viewer, keeps the focus.
    if (viewing.value || (document.activeElement !== here && document.activeElement !== document.body)) return
    // What is left out goes from the list, so the next picture is in its place already.
    const stays = photos.value[at]?.id === photo.id
    await grid.value?.focus(Math.min(stays ? at + 1 : at, photos.value.length - 1))
  }
}

async function close(lastId: string) {
  viewing.value = ''
  await nextTick()
  const at = photos.value.findIndex((p) => p.id === lastId)
  if (at >= 0) await grid.value?.focus(at)
}
</script>

<template>
  <div class="photos-room" data-testid="photos-room">
    <form class="filters" aria-label="Which photos" @submit.prevent>
      <label
        >Show
        <BFormSelect v-model="form.show" size="sm" data-testid="filter-show">
          <option value="all">all pictures</option>
          <option value="undecided">not judged yet</option>
          <option value="keep">keep</option>
          <option value="maybe">maybe</option>
          <option value="leftOut">left out</option>
          <option value="lookalikes">several alike</option>
          <option value="unplaced">in no pocket</option>
          <option value="noDate">without a date</option>
          <option value="outside">not in the album</option>
          <option value="tooSmall">too small for 4x6</option>
        </BFormSelect></label
      >
      <label
        >In
        <BFormSelect v-model="form.unit" size="sm">
          <option value="">the whole album</option>
          <option v-for="u in album.units" :key="u.id" :value="u.id">{{ u.title }}</option>
        </BFormSelect></label
      >
      <label
        >Camera
        <BFormSelect v-model="form.camera" size="sm">
          <option value="">any</option>
          <option v-for="c in cameras?.cameras ?? []" :key="c.camera" :value="c.camera || '-'">
            {{ c.camera || 'not named' }}
          </option>
        </BFormSelect></label
      >
      <label
        >Shape
        <BFormSelect v-model="form.orientation" size="sm">
          <option value="">any</option>
          <option value="landscape">landscape</option>
          <option value="upright">upright</option>
          <option value="square">square</option>
        </BFormSelect></label
      >
      <label
        >Stars
        <BFormSelect v-model="form.favourite" size="sm">
          <option value="">any</option>
          <option value="1">1 or more</option>
          <option value="2">2 or more</option>
          <option value="3">3</option>
        </BFormSelect></label
      >
      <label
        >Kind
        <BFormSelect v-model="form.kind" size="sm">
          <option value="">any</option>
          <option value="photo">photos</option>
          <option value="screenshot">screenshots</option>
          <option value="scan">scans</option>
          <option value="page">PDF pages</option>
        </BFormSelect></label
      >
      <span class="ms-auto" data-testid="photo-count">{{ count ? counted(count.photos, 'picture') : '…' }}</span>
    </form>
    <div v-if="chosen.length" class="bulk" data-testid="bulk">
      <strong>{{ chosen.length }} chosen</strong>
      <button type="button" class="btn btn-sm btn-outline-dark" @click="bulk({ kind: 'judgePhoto', verdict: 'keep' })">
        Keep
      </button>
      <button type="button" class="btn btn-sm btn-outline-dark" @click="bulk({ kind: 'judgePhoto', verdict: 'maybe' })">
        Maybe
      </button>
      <button type="button" class="btn btn-sm btn-outline-dark" @click="bulk({ kind: 'judgePhoto', verdict: 'leave' })">
        Leave out
      </button>
      <button
        type="button"
        class="btn btn-sm btn-outline-dark"
        @click="bulk({ kind: 'judgePhoto', verdict: 'undecided' })"
      >
        Not decided
      </button>
      <button
        v-for="n in [1, 2, 3]"
        :key="n"
        type="button"
        class="btn btn-sm btn-outline-dark"
        :aria-label="`${counted(n, 'star')}`"
        @click="bulk({ kind: 'starPhoto', stars: n })"
      >
        {{ '★'.repeat(n) }}
      </button>
      <input
        v-model="bulkDay"
        type="date"
        class="form-control form-control-sm bulk-day"
        aria-label="Day for the chosen"
      />
      <button
        type="button"
        class="btn btn-sm btn-outline-dark"
        :disabled="!bulkDay"
        @click="bulk({ kind: 'datePhoto', day: bulkDay })"
      >
        Move there
      </button>
      <button type="button" class="btn btn-sm btn-outline-dark" @click="selected = new Set()">Clear selection</button>
    </div>
    <p v-else class="visually-quiet small mb-1 px-1">
      Enter opens a picture large. Arrows move, K keeps, M maybe, X leaves out, 1 2 3 give stars, Space chooses.
    </p>
    <p v-if="error" class="warning-chip" role="alert">{{ error.message }}</p>
    <p v-if="data && photos.length === 0" class="room-panel">
      No picture is like that. Choose something else above, or add photos on a Gather tab.
    </p>
    <PhotoGrid
      ref="grid"
      :photos="photos"
      :more="hasNextPage"
      :selected="selected"
      :heading-of="headingOf"
      @more="more"
      @open="(p) => (viewing = p.id)"
      @select="select"
      @key="onKey"
    />
    <PhotoViewer v-if="viewing" :album-id="album.id" :photos="photos" :start="viewing" @close="close" />
  </div>
</template>

<style scoped>
.photos-room {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-width: 0;
  padding: 0.6rem 1rem 0;
}
.filters,
.bulk {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 0.6rem;
  padding-bottom: 0.5rem;
}
.filters label {
  font-size: 0.8rem;
  font-weight: 600;
}
.bulk {
  align-items: center;
  padding: 0.35rem 0.6rem;
  margin-bottom: 0.3rem;
  border-radius: 0.5rem;
  background: var(--zest-pale);
}
.bulk-day {
  width: auto;
}
</style>
