<script setup lang="ts">
import { computed, ref } from 'vue'
import type { BoxView, PlacesOnCard } from '../../api/client'
import BoxLayer from '../photos/BoxLayer.vue'
import { keptAt, placeOf, type WrittenPlace } from './onCard'

/** The kept part of a bought card: its places are drawn on it, and the card is dragged in its pocket. */
const props = defineProps<{ face: string; title: string; places: PlacesOnCard; picture: boolean }>()
const emit = defineEmits<{
  words: [place: WrittenPlace | null]
  picture: [place: WrittenPlace | null]
  keep: [x: string, y: string]
}>()

type Doing = 'words' | 'picture' | 'keep'
const doing = ref<Doing>('words')
const movable = computed(() => props.places.mostXMm > 0.05 || props.places.mostYMm > 0.05)
const choices = computed(() => [
  { key: 'words' as const, name: 'Draw the words’ place' },
  ...(props.picture ? [{ key: 'picture' as const, name: 'Draw the picture’s place' }] : []),
  ...(movable.value ? [{ key: 'keep' as const, name: 'Move the card' }] : []),
])

const boxOf = (kind: 'words' | 'picture') => {
  const box = props.places[kind]
  return box ? [box] : []
}
/** One place of a kind: the one drawn last. */
function drawn(kind: 'words' | 'picture', boxes: BoxView[]) {
  const last = boxes.at(-1)
  const place = last ? placeOf(last, props.places) : null
  if (kind === 'words') emit('words', place)
  else emit('picture', place)
}

const stage = ref<HTMLElement>()
const from = ref<{ x: number; y: number } | null>(null)
const by = ref({ x: 0, y: 0 })
function onDown(event: PointerEvent) {
  if (doing.value !== 'keep' || event.button !== 0) return
  stage.value!.setPointerCapture(event.pointerId)
  from.value = { x: event.clientX, y: event.clientY }
}
function onMove(event: PointerEvent) {
  if (from.value) by.value = { x: event.clientX - from.value.x, y: event.clientY - from.value.y }
}
function onUp() {
  if (!from.value) return
  const { width, height } = stage.value!.getBoundingClientRect()
  const { x, y } = by.value
  from.value = null
  by.value = { x: 0, y: 0 }
  if (x || y) emit('keep', ...keptAt(props.places, -x / width, -y / height))
}
function onKey(event: KeyboardEvent) {
  const step = { ArrowLeft: [1, 0], ArrowRight: [-1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key]
  if (doing.value !== 'keep' || !step) return
  event.preventDefault()
  emit('keep', ...keptAt(props.places, step[0]! / 25, step[1]! / 25))
}
</script>

<template>
  <div class="mb-2">
    <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions -->
    <div
      ref="stage"
      class="stage"
      :class="doing"
      :tabindex="doing === 'keep' ? 0 : -1"
      role="group"
      :aria-label="`The card ${title}${doing === 'keep' ? ': the arrow keys move it in its pocket' : ''}`"
      @pointerdown="onDown"
      @pointermove="onMove"
      @pointerup="onUp"
      @pointercancel="onUp"
      @keydown="onKey"
    >
      <img
        :src="face"
        :alt="title"
        draggable="false"
        :style="{ transform: from ? `translate(${by.x}px, ${by.y}px)` : undefined }"
      />
      <BoxLayer
        :boxes="boxOf('words')"
        kind="keep"
        what="the words’ place"
        :drawing="doing === 'words'"
        @change="drawn('words', $event)"
      />
      <BoxLayer
        v-if="picture"
        :boxes="boxOf('picture')"
        kind="keep"
        what="the picture’s place"
        :drawing="doing === 'picture'"
        @change="drawn('picture', $event)"
      />
    </div>
    <div class="d-flex flex-wrap gap-2 mt-1">
      <BButton
        v-for="c in choices"
        :key="c.key"
        size="sm"
        variant="outline-dark"
        :aria-pressed="doing === c.key"
        @click="doing = c.key"
        >{{ c.name }}</BButton
      >
    </div>
  </div>
</template>

<style scoped>
.stage {
  position: relative;
  width: max-content;
  max-width: 100%;
  overflow: hidden;
  border: 1px solid #8b8072;
}
.stage.keep {
  cursor: grab;
  touch-action: none;
}
.stage img {
  display: block;
  max-width: 100%;
  max-height: 260px;
}
</style>
