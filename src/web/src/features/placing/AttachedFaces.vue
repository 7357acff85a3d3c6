<script setup lang="ts">
import { computed } from 'vue'
import type { PieceView } from '../../api/client'
import { useHand } from './hand'

/** What goes with the piece in a pocket, drawn over the pocket: labels, sleeves, flips closed or lifted, tags. */
const props = defineProps<{ piece: PieceView }>()
const hand = useHand()

const back = (piece: PieceView) => piece.attached?.find((p) => p.attachment?.kind === 'back')

const shown = computed(() =>
  (props.piece.attached ?? [])
    .filter((p) => p.attachment && !['back', 'behind'].includes(p.attachment.kind))
    .sort((a, b) => rank(a) - rank(b))
    .map((p) => {
      const goes = p.attachment!
      const lifted = goes.kind === 'flip' && hand.lifted.includes(p.id) ? goes.lifted : null
      return { piece: p, kind: goes.kind, edge: goes.edge as string, lifted, box: lifted ?? goes.closed }
    }),
)
const rank = (p: PieceView) => ['tag', 'stuckOn', 'sleeve', 'flip'].indexOf(p.attachment!.kind)

/** Of a tag only what stands out of the pocket is seen. */
const clip = (edge: string) =>
  ({
    top: 'inset(0 0 var(--in) 0)',
    bottom: 'inset(var(--in) 0 0 0)',
    left: 'inset(0 var(--in) 0 0)',
    right: 'inset(0 0 0 var(--in))',
  })[edge]
const inside = (edge: string, box: { width: number; height: number }) =>
  `${100 / (edge === 'left' || edge === 'right' ? box.width : box.height)}%`
</script>

<template>
  <template v-for="s in shown" :key="s.piece.id">
    <img
      v-if="!s.lifted || back(s.piece)"
      class="attached-face"
      :class="[s.kind, { lifted: s.lifted }]"
      :data-attached="s.piece.id"
      :data-lifted="s.lifted ? 'yes' : undefined"
      :src="(s.lifted ? back(s.piece)!.faceUrl : s.piece.faceUrl) ?? ''"
      :alt="`${s.piece.title}, ${s.lifted ? 'lifted' : 'closed'}`"
      draggable="false"
      :style="{
        left: `${100 * s.box.x}%`,
        top: `${100 * s.box.y}%`,
        width: `${100 * s.box.width}%`,
        height: `${100 * s.box.height}%`,
        '--in': inside(s.edge, s.box),
        clipPath: s.kind === 'tag' ? clip(s.edge) : undefined,
      }"
    />
    <span
      v-else
      class="attached-face blank"
      :data-lifted="'yes'"
      :style="{
        left: `${100 * s.box.x}%`,
        top: `${100 * s.box.y}%`,
        width: `${100 * s.box.width}%`,
        height: `${100 * s.box.height}%`,
      }"
    />
  </template>
</template>

<style scoped>
.attached-face {
  position: absolute;
  pointer-events: none;
}
.flip,
.blank {
  box-shadow: 0 1px 4px rgb(0 0 0 / 0.45);
}
.blank {
  background: #fff;
}
.lifted {
  z-index: 4;
}
</style>
