<script setup lang="ts">
import type { PieceView, UnitView } from '../../api/client'

/** Small pictures on a card: one for a day of a calendar, one for somebody who was there. */
const props = defineProps<{ unit: UnitView; piece: PieceView }>()
const emit = defineEmits<{ show: [at: string, photoId: string | null]; fill: [] }>()

const hasOpenDay = () => props.piece.cardKind === 'calendar' && props.piece.smallPictures?.some((p) => !p.photoId)
</script>

<template>
  <details class="mt-2">
    <summary>Small pictures</summary>
    <p v-if="!unit.photos.length" class="form-text m-0">No photos here yet.</p>
    <template v-else>
      <BButton v-if="hasOpenDay()" size="sm" variant="outline-dark" class="mt-1" @click="emit('fill')"
        >Show each day’s photo</BButton
      >
      <div v-for="small in piece.smallPictures" :key="small.place" class="place">
        <label :for="`small-${piece.id}-${small.place}`">{{ small.label }}</label>
        <BFormSelect
          :id="`small-${piece.id}-${small.place}`"
          size="sm"
          :model-value="small.photoId ?? ''"
          @update:model-value="emit('show', small.place, ($event as string) || null)"
        >
          <option value="">none</option>
          <option v-for="photo in unit.photos" :key="photo.id" :value="photo.id">
            {{ photo.fileName }}{{ photo.dayLabel ? `, ${photo.dayLabel}` : '' }}
          </option>
        </BFormSelect>
      </div>
    </template>
  </details>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-columns: minmax(6rem, 1fr) 2fr;
  gap: 0.4rem;
  align-items: center;
  margin-top: 0.35rem;
}
</style>
