<script setup lang="ts">
import { computed } from 'vue'
import type { PlacingWeights, UnitView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum } from '../../shared/edits'
import { useAlbumWords } from '../words/queries'
import { usePlacingPresets } from './queries'
import type { Edit } from './unit'

/** What counts how much when pockets are filled: a preset, then a slider for each. */
const props = defineProps<{ unit: UnitView; edit: (change: Edit) => Promise<unknown> }>()

const sliders: { key: keyof PlacingWeights; name: string }[] = [
  { key: 'lessCropping', name: 'Less cropping' },
  { key: 'sharpness', name: 'Sharp prints' },
  { key: 'favouritesLarge', name: 'Favourites large' },
  { key: 'inOrderOfTime', name: 'In order of time' },
  { key: 'everyDay', name: 'Every day has its turn' },
  { key: 'lookalikesApart', name: 'Look-alikes apart' },
  { key: 'picturesTogether', name: 'Photos side by side' },
  { key: 'wordsBesidePictures', name: 'Words beside their photos' },
  { key: 'calm', name: 'Calm and balance' },
  { key: 'bookEnds', name: 'Book-ends' },
]

const { act } = useAct(() => props.unit.albumId)
const { data: words } = useAlbumWords(() => props.unit.albumId)
const { data: presets } = usePlacingPresets()
const weights = computed(() => props.unit.weights)
const same = (a: PlacingWeights, b: PlacingWeights) => sliders.every((s) => a[s.key] === b[s.key])
const preset = computed(() => presets.value?.find((p) => same(p.weights, weights.value))?.name ?? '')

const set = (changed: PlacingWeights) => props.edit({ kind: 'weighPlacing', weights: changed })
function choose(name: string) {
  const found = presets.value?.find((p) => p.name === name)
  if (found) void set(found.weights)
}

const useForAlbum = () =>
  act(() =>
    editAlbum(props.unit.albumId, { kind: 'weighAlbum', revision: words.value!.revision, weights: weights.value }),
  )
</script>

<template>
  <details>
    <summary>Priorities</summary>
    <label for="placing-preset" class="form-label mb-0 mt-1">Way of working</label>
    <BFormSelect id="placing-preset" size="sm" :model-value="preset" @update:model-value="choose($event as string)">
      <option v-if="!preset" value="">your own</option>
      <option v-for="p in presets ?? []" :key="p.name" :value="p.name">{{ p.name }}</option>
    </BFormSelect>
    <div v-for="s in sliders" :key="s.key" class="slider">
      <label :for="`weight-${s.key}`">{{ s.name }}</label>
      <input
        :id="`weight-${s.key}`"
        type="range"
        class="form-range"
        min="0"
        max="3"
        step="0.5"
        :value="weights[s.key]"
        :aria-valuetext="weights[s.key] === 0 ? 'not at all' : `${weights[s.key]} times`"
        @change="set({ ...weights, [s.key]: Number(($event.target as HTMLInputElement).value) })"
      />
    </div>
    <button
      v-if="unit.hasOwnWeights"
      type="button"
      class="btn btn-sm btn-link px-0"
      @click="edit({ kind: 'weighPlacing', weights: null })"
    >
      Use the album’s priorities
    </button>
    <button v-if="unit.hasOwnWeights" type="button" class="btn btn-sm btn-link" @click="useForAlbum">
      Use these for the whole album
    </button>
  </details>
</template>

<style scoped>
.slider {
  display: grid;
  grid-template-columns: 1fr 7rem;
  gap: 0.5rem;
  align-items: center;
  font-size: 0.9rem;
}
</style>
