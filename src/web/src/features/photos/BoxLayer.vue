<script setup lang="ts">
import { computed, ref } from 'vue'
import type { BoxView } from '../../api/client'

const props = defineProps<{ boxes: BoxView[]; kind: 'keep' | 'cover'; drawing: boolean; what?: string }>()
const emit = defineEmits<{ change: [boxes: BoxView[]] }>()

const layer = ref<HTMLElement>()
const press = ref<{ x: number; y: number } | null>(null)
const draft = ref<BoxView | null>(null)
const all = computed(() => (draft.value ? [...props.boxes, draft.value] : props.boxes))
const words = computed(() => props.what ?? (props.kind === 'keep' ? 'what a crop must keep' : 'what is covered'))

function at(event: PointerEvent) {
  const rect = layer.value!.getBoundingClientRect()
  const clamp = (v: number) => Math.min(1, Math.max(0, v))
  return { x: clamp((event.clientX - rect.left) / rect.width), y: clamp((event.clientY - rect.top) / rect.height) }
}

function onDown(event: PointerEvent) {
  if (!props.drawing || event.button !== 0) return
  layer.value!.setPointerCapture(event.pointerId)
  press.value = at(event)
}

function onMove(event: PointerEvent) {
  if (!press.value) return
  const now = at(event)
  draft.value = {
    x: Math.min(now.x, press.value.x),
    y: Math.min(now.y, press.value.y),
    width: Math.abs(now.x - press.value.x),
    height: Math.abs(now.y - press.value.y),
  }
}

function onUp() {
  const made = draft.value
  press.value = null
  draft.value = null
  if (made && made.width > 0.01 && made.height > 0.01) emit('change', [...props.boxes, made])
}

function onKey(event: KeyboardEvent, index: number) {
  const box = props.boxes[index]
  if (!box) return
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault()
    event.stopPropagation()
    emit(
      'change',
      props.boxes.filter((_, i) => i !== index),
    )
    return
  }
  const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key]
  if (!step) return
  event.preventDefault()
  event.stopPropagation()
  const [dx, dy] = [step[0]! * 0.02, step[1]! * 0.02]
  const limit = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v))
  const moved = event.shiftKey
    ? { ...box, width: limit(box.width + dx, 0.02, 1 - box.x), height: limit(box.height + dy, 0.02, 1 - box.y) }
    : { ...box, x: limit(box.x + dx, 0, 1 - box.width), y: limit(box.y + dy, 0, 1 - box.height) }
  emit(
    'change',
    props.boxes.map((b, i) => (i === index ? moved : b)),
  )
}
</script>

<template>
  <div
    ref="layer"
    class="layer"
    :class="{ drawing }"
    @pointerdown="onDown"
    @pointermove="onMove"
    @pointerup="onUp"
    @pointercancel="onUp"
  >
    <button
      v-for="(box, i) in all"
      :key="i"
      type="button"
      class="box"
      :class="kind"
      :style="{
        left: `${box.x * 100}%`,
        top: `${box.y * 100}%`,
        width: `${box.width * 100}%`,
        height: `${box.height * 100}%`,
      }"
      :tabindex="drawing ? 0 : -1"
      :aria-label="`Box ${i + 1}, ${words}: arrows move it, Shift and arrows size it, Delete takes it away`"
      @pointerdown.stop
      @keydown="onKey($event, i)"
    ></button>
  </div>
</template>

<style scoped>
.layer {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.layer.drawing {
  pointer-events: auto;
  cursor: crosshair;
  touch-action: none;
}
.box {
  position: absolute;
  padding: 0;
  background: none;
  pointer-events: none;
}
.drawing .box {
  pointer-events: auto;
}
.box.keep {
  border: 3px dashed #ffd9a8;
  box-shadow: 0 0 0 1px #2b2622;
}
.box.cover {
  border: 2px solid #fff;
  background: rgb(92 84 76 / 0.85);
  box-shadow: 0 0 0 1px #2b2622;
}
</style>
