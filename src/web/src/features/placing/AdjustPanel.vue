<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { PieceView } from '../../api/client'
import type { Edit } from './unit'

/** Straightens the print in hand, makes it lighter or darker, takes its colour; the original stays as it is. */
const props = defineProps<{ piece: PieceView; edit: (change: Edit) => Promise<unknown> }>()
const emit = defineEmits<{ level: [degrees: number] }>()

const plain = { straighten: 0, lighter: 0, blackAndWhite: false }
const is = computed(() => ({ ...plain, ...(props.piece.adjustment ?? {}) }))
const straighten = ref(0)
const lighter = ref(0)
watch(
  () => [props.piece.id, is.value.straighten, is.value.lighter],
  () => {
    straighten.value = is.value.straighten
    lighter.value = is.value.lighter
  },
  { immediate: true },
)
const changed = computed(() => !!props.piece.adjustment)
const set = (change: Partial<typeof plain>) =>
  props.edit({ kind: 'adjustPhotos', prints: [{ pieceId: props.piece.id, adjustment: { ...is.value, ...change } }] })
const restore = () => props.edit({ kind: 'adjustPhotos', prints: [{ pieceId: props.piece.id, adjustment: null }] })
const number = (event: Event) => Number((event.target as HTMLInputElement).value)
const signed = (value: number) => (value > 0 ? `+${value}` : String(value))
</script>

<template>
  <details class="mt-2" :open="changed || undefined">
    <summary>Straighten, light, colour</summary>
    <label :for="`straighten-${piece.id}`" class="form-label mb-0 mt-1">Straighten {{ signed(straighten) }}°</label>
    <input
      :id="`straighten-${piece.id}`"
      type="range"
      class="form-range"
      min="-15"
      max="15"
      step="0.1"
      :value="straighten"
      @input="((straighten = number($event)), emit('level', straighten))"
      @change="set({ straighten: number($event) })"
    />
    <label :for="`lighter-${piece.id}`" class="form-label mb-0">Lighter or darker {{ signed(lighter) }}</label>
    <input
      :id="`lighter-${piece.id}`"
      type="range"
      class="form-range"
      min="-12"
      max="12"
      step="0.5"
      :value="lighter"
      @input="lighter = number($event)"
      @change="set({ lighter: number($event) })"
    />
    <BFormCheckbox
      :id="`grey-${piece.id}`"
      :model-value="is.blackAndWhite"
      @update:model-value="set({ blackAndWhite: !!$event })"
      >Black and white</BFormCheckbox
    >
    <button v-if="changed" type="button" class="btn btn-sm btn-link px-0" @click="restore">Restore the original</button>
  </details>
</template>
