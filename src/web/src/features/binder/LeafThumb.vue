<script setup lang="ts">
import type { BinderLeaf } from '../../api/client'
import PageThumb from './PageThumb.vue'

/** A face of a leaf as a small picture, in proportion to the album's page; the back shows the columns mirrored. */
defineProps<{ leaf: BinderLeaf; side: 'front' | 'back' }>()
</script>

<template>
  <PageThumb
    :design="{ bodyWidth: leaf.bodyWidth, bodyHeight: leaf.bodyHeight, pockets: leaf.shapes }"
    :height="76 * leaf.heightShare"
    class="leaf-thumb"
    :class="[leaf.kind, { mirrored: side === 'back' }]"
  />
</template>

<style scoped>
.leaf-thumb {
  max-width: 100%;
}
.leaf-thumb.divider {
  background: rgb(255 255 255 / 0.4);
  border-style: dashed;
}
.leaf-thumb.envelope {
  background: var(--tape);
}
.leaf-thumb.sheet,
.leaf-thumb.foldOut {
  background: var(--zest-pale);
}
.mirrored {
  transform: scaleX(-1);
}
</style>
