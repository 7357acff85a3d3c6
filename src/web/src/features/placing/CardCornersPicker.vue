<script setup lang="ts">
import { computed, ref } from 'vue'
import type { PhotoView } from '../../api/client'

/** The four corners of a card in its photo; each is dragged, or moved with the arrow keys. */
defineProps<{ photo: PhotoView }>()
const corners = defineModel<{ x?: number; y?: number }[]>({ required: true })
const box = ref<HTMLElement>()
const names = ['Top left corner', 'Top right corner', 'Bottom right corner', 'Bottom left corner']

const points = computed(() => corners.value.map((c) => `${(c.x ?? 0) * 100},${(c.y ?? 0) * 100}`).join(' '))
const clamp = (v: number) => Math.min(1, Math.max(0, v))

function move(i: number, x: number, y: number) {
  corners.value = corners.value.map((c, at) => (at === i ? { x: clamp(x), y: clamp(y) } : c))
}

function drag(event: PointerEvent, i: number) {
  const frame = box.value!.getBoundingClientRect()
  const knob = event.currentTarget as HTMLElement
  knob.setPointerCapture(event.pointerId)
  const follow = (e: PointerEvent) =>
    move(i, (e.clientX - frame.left) / frame.width, (e.clientY - frame.top) / frame.height)
  knob.addEventListener('pointermove', follow)
  knob.addEventListener('pointerup', () => knob.removeEventListener('pointermove', follow), { once: true })
}

function onKey(event: KeyboardEvent, i: number) {
  const step = event.shiftKey ? 0.02 : 0.004
  const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key]
  if (!by) return
  event.preventDefault()
  const c = corners.value[i]!
  move(i, (c.x ?? 0) + by[0]!, (c.y ?? 0) + by[1]!)
}
</script>

<template>
  <div ref="box" class="photo">
    <img :src="`${photo.picture}1600`" :alt="`Photo of the card, ${photo.fileName}`" draggable="false" />
    <svg viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden="true">
      <polygon :points="points" />
    </svg>
    <button
      v-for="(c, i) in corners"
      :key="i"
      type="button"
      class="knob"
      :aria-label="`${names[i]}: arrow keys move it`"
      :style="{ left: `${(c.x ?? 0) * 100}%`, top: `${(c.y ?? 0) * 100}%` }"
      @pointerdown="drag($event, i)"
      @keydown="onKey($event, i)"
    />
  </div>
</template>

<style scoped>
.photo {
  position: relative;
  margin-top: 0.5rem;
  touch-action: none;
}
.photo img {
  display: block;
  width: 100%;
}
.photo svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.photo polygon {
  fill: rgb(232 119 34 / 0.18);
  stroke: #b5500b;
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.knob {
  position: absolute;
  width: 24px;
  height: 24px;
  margin: -12px 0 0 -12px;
  border: 2px solid #fff;
  border-radius: 50%;
  background: #b5500b;
  box-shadow: 0 0 3px rgb(0 0 0 / 0.6);
  cursor: grab;
}
</style>
