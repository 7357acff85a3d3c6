<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { PhotoEdit, PhotoDetail } from '../../api/client'
import { useAlbumWords } from '../words/queries'
import { useSeries } from './queries'

const props = defineProps<{ albumId: string; detail: PhotoDetail }>()
const emit = defineEmits<{ change: [what: PhotoEdit] }>()
const { data: series } = useSeries(() => props.albumId)
const day = ref('')

watch(
  () => props.detail.photo.id,
  () => (day.value = props.detail.photo.day ?? props.detail.photo.guessedDay ?? ''),
  { immediate: true },
)

/** People of the album, and those tagged on the picture. */
const { data: words } = useAlbumWords(() => props.albumId)
const people = computed(() => [...new Set([...(words.value?.people.map((p) => p.name) ?? []), ...props.detail.people])])
const other = ref('')
function tag() {
  emit('change', { kind: 'tagPerson', name: other.value })
  other.value = ''
}

const sharpest = computed(() => props.detail.lookalikes.find((p) => p.suggestedBest))
const size = computed(() => {
  const bytes = props.detail.bytes
  return bytes > 1_000_000 ? `${(bytes / 1_000_000).toFixed(1)} MB` : `${Math.max(1, Math.round(bytes / 1000))} kB`
})
const tone = computed(() => {
  const l = props.detail.tone
  return `${l < 35 ? 'dark' : l > 70 ? 'light' : 'middling'} (L* ${Math.round(l)})`
})
const kinds = [
  ['photo', 'photo'],
  ['screenshot', 'screenshot'],
  ['scan', 'scan'],
  ['page', 'page of a PDF'],
] as const
</script>

<template>
  <aside class="photo-facts" aria-label="Facts of the photo">
    <dl>
      <dt>Day</dt>
      <dd>
        {{ detail.photo.dayLabel ?? 'none yet' }} {{ detail.photo.time }}
        <small>{{ detail.timeWords }}</small>
        <span class="day-line">
          <input v-model="day" type="date" class="form-control form-control-sm" aria-label="Day of this photo" />
          <button
            type="button"
            class="btn btn-sm btn-light"
            :disabled="!day"
            @click="emit('change', { kind: 'datePhoto', day })"
          >
            Move there
          </button>
        </span>
        <button
          v-if="detail.daySetByKeeper"
          type="button"
          class="btn btn-sm btn-outline-light mt-1"
          @click="emit('change', { kind: 'dateFromClock' })"
        >
          Use the recorded time
        </button>
      </dd>
      <dt>Camera</dt>
      <dd>{{ detail.photo.camera ?? 'not named in the file' }}</dd>
      <dt>Picture</dt>
      <dd>
        {{ detail.photo.width }} × {{ detail.photo.height }}, {{ detail.proportion }},
        {{ detail.format.toUpperCase() }},
        {{ size }}
      </dd>
      <dt>Largest print at 300 ppi</dt>
      <dd>
        {{ detail.largestPrint }}
        <strong v-if="!detail.fills4x6" class="small-one">too small for 4x6</strong>
      </dd>
      <dt>Tone</dt>
      <dd>{{ tone }}</dd>
      <dt>Palette</dt>
      <dd class="palette">
        <span
          v-for="c in detail.palette"
          :key="c.hex"
          class="chip"
          role="img"
          :style="{ background: c.hex, flexGrow: Math.max(0.08, c.share) }"
          :aria-label="`${c.hex}, ${Math.round(c.share * 100)} %`"
          :title="`${c.hex}, ${Math.round(c.share * 100)} %`"
        ></span>
      </dd>
      <dt>Sharpness</dt>
      <dd>
        {{ Math.round(detail.sharpness) }}
        <small>Compares pictures of one scene only.</small>
        <span v-if="detail.lookalikes.length > 1">
          One of {{ detail.lookalikes.length }} alike; the sharpest is
          {{ sharpest?.id === detail.photo.id ? 'this one' : sharpest?.fileName }}.
        </span>
      </dd>
      <dt v-if="detail.latitude != null">Place</dt>
      <dd v-if="detail.latitude != null && detail.longitude != null">
        {{ Math.abs(detail.latitude).toFixed(3) }}° {{ detail.latitude < 0 ? 'S' : 'N' }},
        {{ Math.abs(detail.longitude).toFixed(3) }}° {{ detail.longitude < 0 ? 'W' : 'E' }}
      </dd>
      <dt><label for="facts-kind">Kind</label></dt>
      <dd>
        <BFormSelect
          id="facts-kind"
          size="sm"
          :model-value="detail.photo.kind"
          @update:model-value="
            emit('change', {
              kind: 'callPhoto',
              pictureKind: $event as typeof detail.photo.kind,
            })
          "
        >
          <option v-for="[value, name] in kinds" :key="value" :value="value">{{ name }}</option>
        </BFormSelect>
      </dd>
      <dt>People</dt>
      <dd>
        <label v-for="name in people" :key="name" class="form-check mb-0">
          <input
            type="checkbox"
            class="form-check-input"
            :checked="detail.people.includes(name)"
            @change="emit('change', { kind: detail.people.includes(name) ? 'untagPerson' : 'tagPerson', name })"
          />
          <span class="form-check-label">{{ name }}</span>
        </label>
        <form class="day-line" @submit.prevent="tag">
          <input
            v-model="other"
            class="form-control form-control-sm"
            maxlength="80"
            required
            aria-label="Somebody else on this photo"
            placeholder="Somebody else"
          />
          <button type="submit" class="btn btn-sm btn-light">Tag</button>
        </form>
      </dd>
      <template v-if="detail.pages > 1">
        <dt><label for="facts-page">Page</label></dt>
        <dd>
          <BFormSelect
            id="facts-page"
            size="sm"
            :model-value="detail.page"
            @update:model-value="emit('change', { kind: 'turnToPage', page: Number($event) })"
          >
            <option v-for="n in Math.min(detail.pages, 300)" :key="n" :value="n">{{ n }} of {{ detail.pages }}</option>
          </BFormSelect>
        </dd>
      </template>
      <template v-if="series?.series.length">
        <dt><label for="facts-series">Series</label></dt>
        <dd>
          <BFormSelect
            id="facts-series"
            size="sm"
            :model-value="detail.seriesId ?? ''"
            @update:model-value="
              emit('change', $event ? { kind: 'joinSeries', seriesId: $event as string } : { kind: 'leaveSeries' })
            "
          >
            <option value="">none</option>
            <option v-for="s in series.series" :key="s.id" :value="s.id">{{ s.name }}</option>
          </BFormSelect>
        </dd>
      </template>
    </dl>
  </aside>
</template>

<style scoped>
.photo-facts {
  padding: 0.9rem 1rem;
  background: #2b2824;
  color: #fff;
}
dt {
  font-weight: 600;
  color: #e9c9a4;
  font-size: 0.8rem;
}
dd {
  margin-bottom: 0.7rem;
}
small {
  display: block;
  color: #ddd3c4;
}
.day-line {
  display: flex;
  gap: 0.4rem;
  margin-top: 0.3rem;
}
.day-line .btn {
  white-space: nowrap;
}
.palette {
  display: flex;
  height: 24px;
  border-radius: 4px;
  overflow: hidden;
}
.small-one {
  display: block;
  color: #ffb9c6;
}
</style>
