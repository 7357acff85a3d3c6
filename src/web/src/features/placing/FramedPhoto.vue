<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { PieceView } from '../../api/client'
import { usePhoto } from '../photos/queries'
import { boxStyle, framingOf, imageStyle, moved, snapped, zoomed, type Framing, type Kept } from './frame'

const props = defineProps<{ piece: PieceView; side: number; interactive?: boolean }>()
const emit = defineEmits<{ frame: [framing: Framing] }>()

const box = ref<HTMLElement>()
/** What is shown while the keeper moves the picture; the server's word comes after. */
const draft = ref<Kept | null>(null)
const zoom = ref(props.piece.framing?.zoom ?? 1)
let last: { x: number; y: number } | null = null
/** Where the hand has moved the kept part, before it snaps. */
let free: Kept | null = null
const focus = computed(() => ({ x: props.piece.photo?.focusX ?? 0.5, y: props.piece.photo?.focusY ?? 0.5 }))
/** The wheel has no last turn: the picture is framed a moment after it rests. */
const wheel = useTimeoutFn(() => commit(), 350, { immediate: false })

watch(
  () => props.piece,
  (piece) => {
    draft.value = null
    degrees.value = null
    zoom.value = piece.framing?.zoom ?? 1
  },
)

const kept = computed<Kept>(() => draft.value ?? props.piece.crop ?? { left: 0, top: 0, width: 1, height: 1 })

/** What must stay is shown while the picture is moved. */
const { data: detail } = usePhoto(() => (props.interactive ? (props.piece.photo?.id ?? '') : ''))
const keep = computed(() => (props.interactive ? (detail.value?.keepBoxes ?? []) : []))
const moving = computed(() => draft.value !== null)

/** How far it is turned; shown at once while it is being straightened. */
const degrees = ref<number | null>(null)
const style = computed(() => ({
  ...imageStyle(kept.value, degrees.value ?? props.piece.crop?.degrees ?? 0),
  filter: props.piece.adjustment?.blackAndWhite ? 'grayscale(1)' : undefined,
}))

function onDown(event: PointerEvent) {
  if (!props.interactive || event.button !== 0) return
  event.preventDefault()
  event.stopPropagation()
  last = { x: event.clientX, y: event.clientY }
  box.value?.setPointerCapture(event.pointerId)
}

function onMove(event: PointerEvent) {
  if (!last || !box.value) return
  const { width, height } = box.value.getBoundingClientRect()
  free = moved(free ?? kept.value, (last.x - event.clientX) / width, (last.y - event.clientY) / height)
  // With Alt it goes where the hand goes, past the lines of thirds.
  draft.value = event.altKey ? free : snapped(free, focus.value, detail.value?.horizon)
  last = { x: event.clientX, y: event.clientY }
}

function onUp() {
  if (!last) return
  last = null
  free = null
  if (draft.value) commit()
}

function onWheel(event: WheelEvent) {
  if (!props.interactive) return
  event.preventDefault()
  setZoom(zoom.value * (event.deltaY < 0 ? 1.08 : 1 / 1.08))
  wheel.start()
}

function setZoom(to: number) {
  const next = Math.min(8, Math.max(1, to))
  draft.value = zoomed(kept.value, zoom.value, next)
  zoom.value = next
}

function commit() {
  emit('frame', framingOf(kept.value, zoom.value))
}

defineExpose({ setZoom, commit, zoom, level: (to: number) => (degrees.value = to) })
</script>

<template>
  <span
    ref="box"
    class="framed"
    :class="{ interactive }"
    @pointerdown="onDown"
    @pointermove="onMove"
    @pointerup="onUp"
    @pointercancel="onUp"
    @wheel="onWheel"
  >
    <span v-for="(b, i) in keep" :key="i" class="keep-box" :style="boxStyle(b, kept)" aria-hidden="true"></span>
    <span v-if="moving" class="thirds" aria-hidden="true"></span>
    <img :src="`${piece.photo?.picture}${side}`" :style="style" alt="" draggable="false" loading="lazy" />
  </span>
</template>

<style scoped>
.framed {
  position: absolute;
  inset: 0;
  overflow: hidden;
  display: block;
}
.framed img {
  position: absolute;
  max-width: none;
}
.keep-box {
  position: absolute;
  z-index: 1;
  border: 2px dashed #ffd9a8;
  box-shadow: 0 0 0 1px #2b2622;
  pointer-events: none;
}
.thirds {
  position: absolute;
  inset: 0;
  z-index: 1;
  pointer-events: none;
  background:
    linear-gradient(#fff9, #fff9) 33.33% 0 / 1px 100% no-repeat,
    linear-gradient(#fff9, #fff9) 66.66% 0 / 1px 100% no-repeat,
    linear-gradient(#fff9, #fff9) 0 33.33% / 100% 1px no-repeat,
    linear-gradient(#fff9, #fff9) 0 66.66% / 100% 1px no-repeat;
}
.framed.interactive {
  cursor: grab;
  touch-action: none;
}
.framed.interactive:active {
  cursor: grabbing;
}
</style>
