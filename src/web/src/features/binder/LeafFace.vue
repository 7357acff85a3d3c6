<script setup lang="ts">
import { computed } from 'vue'
import type { LeafFaceDetail } from '../../api/client'

/** One face of a leaf with what lies in its pockets, each numbered with the number of the pocket behind it. */
const props = defineProps<{
  face: LeafFaceDetail
  width: number
  height: number
  side: 'front' | 'back'
  title: string
}>()
/** Hundredths of an inch: drawn in EMU, the numbers would be type of 50,000 px, which browsers do not draw. */
const cents = (emu: number) => emu / 9144
const unit = computed(() => cents(props.width) / 100)
const words = computed(
  () =>
    `${props.side === 'front' ? 'Front' : 'Back'}, ${props.title}: ` +
    props.face.pockets
      .map(
        (p) =>
          `${p.number} ${p.piece ?? (p.leftEmpty ? 'left empty' : 'empty')}${p.stuck ? ', stuck to its back' : ''}`,
      )
      .join('; '),
)
</script>

<template>
  <figure class="m-0">
    <svg
      :viewBox="`0 0 ${cents(width)} ${cents(height)}`"
      class="leaf-face"
      data-bs-theme="light"
      role="img"
      :aria-label="words"
    >
      <rect x="0" y="0" :width="cents(width)" :height="cents(height)" class="film" />
      <rect
        :x="cents(face.ringStripX)"
        y="0"
        :width="cents(face.ringStripWidth)"
        :height="cents(height)"
        class="strip"
      />
      <circle
        v-for="(h, i) in face.holes"
        :key="`h${i}`"
        :cx="cents(h.x)"
        :cy="cents(h.y)"
        :r="cents(face.holeWidth) / 2"
        class="hole"
      />
      <g v-for="p in face.pockets" :key="p.key">
        <image
          v-if="p.faceUrl"
          :href="p.faceUrl"
          :x="cents(p.x)"
          :y="cents(p.y)"
          :width="cents(p.width)"
          :height="cents(p.height)"
          preserveAspectRatio="xMidYMid meet"
        />
        <rect
          :x="cents(p.x)"
          :y="cents(p.y)"
          :width="cents(p.width)"
          :height="cents(p.height)"
          class="pocket"
          :class="{ stuck: p.stuck, through: p.seeThrough, 'left-empty': p.leftEmpty }"
        />
        <circle :cx="cents(p.x) + unit * 6" :cy="cents(p.y) + unit * 6" :r="unit * 5" class="disc" />
        <text :x="cents(p.x) + unit * 6" :y="cents(p.y) + unit * 8.2" :font-size="unit * 6.2" text-anchor="middle">
          {{ p.number }}
        </text>
        <text
          v-if="p.behindNumber"
          :x="cents(p.x + p.width) - unit * 2"
          :y="cents(p.y + p.height) - unit * 2"
          :font-size="unit * 5"
          text-anchor="end"
          class="behind"
        >
          {{ p.stuck ? '⇄' : '⤺' }}{{ p.behindNumber }}
        </text>
      </g>
      <line
        v-for="(m, i) in face.marks"
        :key="`m${i}`"
        :x1="cents(m.x1)"
        :y1="cents(m.y1)"
        :x2="cents(m.x2)"
        :y2="cents(m.y2)"
        :class="m.kind"
      />
    </svg>
    <figcaption class="small">{{ side === 'front' ? 'Front' : 'Back' }}: {{ title }}</figcaption>
  </figure>
</template>

<style scoped>
.leaf-face {
  display: block;
  width: 100%;
  max-height: 38vh;
  border: 1px solid #8b8072;
}
.film {
  fill: #eef2f4;
}
.strip {
  fill: #d6dfe4;
}
.hole {
  fill: var(--mat-dark);
}
.pocket {
  fill: none;
  stroke: #566a76;
  stroke-width: 0.4%;
}
.pocket.stuck {
  stroke: var(--zest);
  stroke-width: 0.9%;
}
.pocket.through {
  stroke-dasharray: 1.2% 0.8%;
  stroke: var(--warn);
}
.pocket.left-empty {
  stroke-dasharray: 1.5% 1%;
}
.disc {
  fill: rgb(255 252 245 / 0.92);
  stroke: #566a76;
  stroke-width: 0.25%;
}
text {
  fill: var(--ink);
  font-weight: 700;
}
.behind {
  fill: var(--ink);
  paint-order: stroke;
  stroke: rgb(255 252 245 / 0.92);
  stroke-width: 0.8%;
}
line {
  stroke: var(--warn);
  stroke-width: 0.6%;
  stroke-dasharray: 2% 1.2%;
}
</style>
