<script setup lang="ts">
import type { BinderLeaf } from '../../api/client'

/** A face of a leaf as a small picture, in proportion to the album's page; the back shows the columns mirrored. */
defineProps<{ leaf: BinderLeaf; side: 'front' | 'back'; height?: number }>()
</script>

<template>
  <svg
    :viewBox="`0 0 ${leaf.bodyWidth} ${leaf.bodyHeight}`"
    :height="(height ?? 76) * leaf.heightShare"
    class="leaf-thumb"
    :class="[leaf.kind, { mirrored: side === 'back' }]"
    aria-hidden="true"
  >
    <rect
      v-for="pocket in leaf.shapes"
      :key="pocket.key"
      :x="pocket.x + leaf.bodyWidth / 90"
      :y="pocket.y + leaf.bodyWidth / 90"
      :width="pocket.width - leaf.bodyWidth / 45"
      :height="pocket.height - leaf.bodyWidth / 45"
      :rx="leaf.bodyWidth / 60"
    />
  </svg>
</template>

<style scoped>
.leaf-thumb {
  background: #fff;
  border: 1px solid #8b8072;
  border-radius: 3px;
  max-width: 100%;
}
.leaf-thumb.divider {
  background: rgb(255 255 255 / 0.4);
  border-style: dashed;
}
.leaf-thumb.envelope {
  background: var(--tape);
}
.leaf-thumb rect {
  fill: #dfe6ea;
  stroke: #7d929e;
  stroke-width: 0.5%;
}
.leaf-thumb.sheet rect,
.leaf-thumb.foldOut rect {
  fill: var(--zest-pale);
}
.mirrored {
  transform: scaleX(-1);
}
</style>
