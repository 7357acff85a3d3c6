<script setup lang="ts">
import { computed } from 'vue'
import type { CardSetting, PieceView, UnitView } from '../../api/client'

/** How a card looks beyond its style: size of type, marked words, cutting of a pattern, the cards' colours. */
const props = defineProps<{ unit: UnitView; piece: PieceView; setting: CardSetting | null; written: boolean }>()
const emit = defineEmits<{
  change: [changes: Partial<CardSetting>]
  tint: [fromPictures: boolean, photoId: string | null]
}>()

const filler = computed(() => props.piece.cardKind === 'filler')
const levelled = computed(() => ['journaling', 'incident', 'why'].includes(props.piece.cardKind ?? ''))
const colours = computed(() => {
  const tint = props.unit.tint
  if (!tint) return 'own'
  return tint.photoId ? tint.photoId : 'all'
})

function chooseColours(choice: string) {
  if (choice === 'own') emit('tint', false, null)
  else emit('tint', true, choice === 'all' ? null : choice)
}

function shuffle() {
  emit('change', { seed: ((props.setting?.seed ?? 1) % 9999) + 1 })
}
</script>

<template>
  <BButton v-if="filler" size="sm" variant="outline-dark" class="mt-2" @click="shuffle">Shuffle pattern</BButton>
  <BFormCheckbox
    v-if="piece.cardKind === 'calendar'"
    class="mt-2"
    :model-value="setting?.oneWeek ?? false"
    @update:model-value="emit('change', { oneWeek: $event as boolean })"
  >
    Show one week, not the month
  </BFormCheckbox>
  <BFormCheckbox
    v-if="piece.cardKind === 'map'"
    class="mt-2"
    :model-value="setting?.outline ?? false"
    @update:model-value="emit('change', { outline: $event as boolean })"
  >
    Show coast, rivers and places
  </BFormCheckbox>
  <template v-if="written">
    <label :for="`highlight-${piece.id}`" class="form-label mb-1 mt-2">Highlight these words</label>
    <input
      :id="`highlight-${piece.id}`"
      class="form-control form-control-sm"
      maxlength="120"
      :value="setting?.highlight ?? ''"
      placeholder="as they stand on the card"
      @change="emit('change', { highlight: ($event.target as HTMLInputElement).value || null })"
    />
  </template>
  <BFormCheckbox
    v-if="levelled && written"
    class="mt-2"
    :model-value="setting?.ownSize ?? false"
    @update:model-value="emit('change', { ownSize: $event as boolean })"
  >
    Use its own type size, not the one of the other cards
  </BFormCheckbox>
  <label :for="`colours-${piece.id}`" class="form-label mb-1 mt-2">Colours of {{ unit.inSentence }}’s cards</label>
  <div class="d-flex gap-2 align-items-center">
    <BFormSelect
      :id="`colours-${piece.id}`"
      size="sm"
      :model-value="colours"
      @update:model-value="chooseColours($event as string)"
    >
      <option value="own">from their style</option>
      <option value="all" :disabled="!unit.photos.length">from all pictures</option>
      <option v-for="photo in unit.photos" :key="photo.id" :value="photo.id">from {{ photo.fileName }}</option>
    </BFormSelect>
    <span v-if="unit.tint" class="dots" aria-hidden="true">
      <span :style="{ background: unit.tint.main }"></span><span :style="{ background: unit.tint.accent }"></span>
    </span>
  </div>
</template>

<style scoped>
.dots {
  display: flex;
  gap: 2px;
}
.dots span {
  width: 1.1rem;
  height: 1.1rem;
  border: 1px solid var(--line);
  border-radius: 50%;
}
</style>
