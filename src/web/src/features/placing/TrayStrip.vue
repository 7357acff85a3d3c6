<script setup lang="ts">
import { computed } from 'vue'
import type { PhotoView, PieceView, UnitView } from '../../api/client'
import { loosePhotos } from './attached'
import { usePieceDrag } from './drag'
import { useHand, type InHand } from './hand'

const props = defineProps<{ unit: UnitView }>()
const emit = defineEmits<{ drop: [held: InHand, x: number, y: number] }>()
const hand = useHand()

const photos = computed(() => loosePhotos(props.unit))
const days = computed(() => {
  const groups = new Map<string, PhotoView[]>()
  for (const photo of photos.value) {
    const label = photo.dayLabel ?? 'No day'
    groups.set(label, [...(groups.get(label) ?? []), photo])
  }
  return [...groups]
})

const holdsPhoto = (photo: PhotoView) => hand.held?.kind === 'photo' && hand.held.photoId === photo.id
const holdsPiece = (piece: PieceView) => hand.held?.kind === 'piece' && hand.held.pieceId === piece.id

function pickPhoto(photo: PhotoView) {
  hand.held = holdsPhoto(photo) ? null : { kind: 'photo', photoId: photo.id }
}

function pickCard(piece: PieceView) {
  hand.openLoose(piece.id)
  hand.held = holdsPiece(piece) ? null : { kind: 'piece', pieceId: piece.id, from: null }
}

const drag = usePieceDrag((held, x, y) => emit('drop', held, x, y))

function onKey(event: KeyboardEvent) {
  const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key]
  if (!step) return
  event.preventDefault()
  const buttons = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('button.loose')]
  const at = buttons.indexOf(document.activeElement as HTMLElement)
  buttons[Math.min(Math.max(at + step, 0), buttons.length - 1)]?.focus()
}
</script>

<template>
  <section
    class="tray"
    data-tray
    aria-label="Tray of loose pieces"
    @keydown="onKey"
    @mouseleave="hand.looking = null"
    @focusout="hand.looking = null"
  >
    <p v-if="photos.length === 0 && unit.looseCards.length === 0" class="tray-empty">
      <template v-if="unit.photos.length === 0">
        No photos here yet. Add some on the Gather tab, or add a card.
      </template>
      <template v-else>The tray is empty: every piece lies in a pocket.</template>
    </p>
    <div v-if="unit.looseCards.length" class="tray-day">
      <span class="tray-label">Cards, collages, keepsakes</span>
      <div class="tray-pieces">
        <button
          v-for="piece in unit.looseCards"
          :key="piece.id"
          type="button"
          class="loose card-piece"
          :aria-pressed="holdsPiece(piece)"
          :aria-label="`Loose ${piece.kind}: ${piece.title}`"
          :title="piece.title"
          @focus="hand.looking = piece.id"
          @mouseenter="hand.looking = piece.id"
          @click="pickCard(piece)"
          @pointerdown="
            drag.start($event, { kind: 'piece', pieceId: piece.id, from: null }, piece.faceUrl ?? null, piece.title)
          "
        >
          <img :src="piece.faceUrl ?? ''" alt="" draggable="false" />
        </button>
      </div>
    </div>
    <div v-for="[label, list] in days" :key="label" class="tray-day">
      <span class="tray-label">{{ label }} · {{ list.length }}</span>
      <div class="tray-pieces">
        <button
          v-for="photo in list"
          :key="photo.id"
          type="button"
          class="loose"
          :aria-pressed="holdsPhoto(photo)"
          :aria-label="`Loose photo ${photo.fileName}, ${photo.dayLabel ?? 'no day'} ${photo.time ?? ''}`"
          :title="`${photo.fileName} ${photo.time ?? ''}`"
          :data-photo="photo.id"
          @focus="hand.looking = photo.id"
          @mouseenter="hand.looking = photo.id"
          @click="pickPhoto(photo)"
          @pointerdown="drag.start($event, { kind: 'photo', photoId: photo.id }, photo.picture + '512', photo.fileName)"
        >
          <img
            :src="photo.picture + '512'"
            :width="photo.width"
            :height="photo.height"
            alt=""
            loading="lazy"
            draggable="false"
          />
        </button>
      </div>
    </div>
  </section>
</template>

<style scoped>
.tray {
  display: flex;
  gap: 1rem;
  height: 112px;
  padding: 0.45rem 0.9rem;
  overflow-x: auto;
  background: var(--card);
  border-top: 3px solid #b9a98c;
  scrollbar-width: thin;
}
.tray-empty {
  margin: auto 0;
  color: var(--ink-soft);
}
.tray-day {
  flex: none;
}
.tray-label {
  font-size: 0.75rem;
  font-weight: 600;
  color: var(--ink-soft);
}
.tray-pieces {
  display: flex;
  gap: 6px;
  padding: 3px;
}
.loose {
  min-width: 24px;
  height: 66px;
  padding: 0;
  border: 2px solid transparent;
  border-radius: 4px;
  background: #fff;
  cursor: grab;
  touch-action: pan-x;
}
.loose img {
  height: 62px;
  width: auto;
  display: block;
  border-radius: 2px;
}
.loose[aria-pressed='true'] {
  border-color: var(--zest);
  box-shadow: 0 0 0 2px var(--zest);
}
.card-piece img {
  border: 1px solid var(--line);
}
</style>
