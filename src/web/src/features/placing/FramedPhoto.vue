<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { PieceView } from '../../api/client'
import { framingOf, imageStyle, moved, zoomed, type Framing, type Kept } from './frame'

const props = defineProps<{ piece: PieceView; side: number; interactive?: boolean }>()
const emit = defineEmits<{ frame: [framing: Framing] }>()

const box = ref<HTMLElement>()
/** What is shown while the keeper moves the picture; the server's word comes after. */
const draft = ref<Kept | null>(null)
const zoom = ref(props.piece.framing?.zoom ?? 1)
let last: { x: number; y: number } | null = null
/** The wheel has no last turn: the picture is framed a moment after it rests. */
const wheel = useTimeoutFn(() => commit(), 350, { immediate: false })

watch(
  () => props.piece,
  (piece) => {
    draft.value = null
    zoom.value = piece.framing?.zoom ?? 1
  },
)

const kept = computed<Kept>(() => draft.value ?? props.piece.crop ?? { left: 0, top: 0, width: 1, height: 1 })

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
  draft.value = moved(kept.value, (last.x - event.clientX) / width, (last.y - event.clientY) / height)
  last = { x: event.clientX, y: event.clientY }
}

function onUp() {
  if (!last) return
  last = null
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

defineExpose({ setZoom, commit, zoom })
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
    <img :src="`${piece.photo?.picture}${side}`" :style="imageStyle(kept)" alt="" draggable="false" loading="lazy" />
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
.framed.interactive {
  cursor: grab;
  touch-action: none;
}
.framed.interactive:active {
  cursor: grabbing;
}
</style>
