<script setup lang="ts">
import { counted } from '../../shared/words'
import { computed } from 'vue'
import type { CountView } from '../../api/client'

/** The sum as a picture: a square for each piece in its pocket, pieces without one, and pockets without a piece. */
const props = defineProps<{ count: CountView }>()
const kinds = ['picture', 'card', 'story', 'keepsake'] as const
const names = { picture: 'pictures', card: 'cards', story: 'untold stories', keepsake: 'keepsakes' }
const cells = computed(() => {
  const pieces = props.count.wanted.flatMap((w) => Array.from({ length: w.count }, () => w.kind))
  return pieces.map((kind, i) => ({ kind, over: i >= props.count.pockets }))
})
const free = computed(() => Math.max(0, props.count.pockets - props.count.pieces))
const shown = computed(() => kinds.filter((k) => props.count.wanted.some((w) => w.kind === k)))
</script>

<template>
  <div class="bar" role="img" :aria-label="count.sum">
    <span v-for="(cell, i) in cells" :key="i" class="cell" :class="[cell.kind, { over: cell.over }]"></span>
    <span v-for="i in free" :key="`free-${i}`" class="cell free"></span>
  </div>
  <p class="small visually-quiet mb-1">
    <span v-for="k in shown" :key="k" class="key"><i class="cell" :class="k"></i> {{ names[k] }}</span>
    <span v-if="count.lacking" class="key"><i class="cell picture over"></i> without a pocket</span>
    <span v-if="free" class="key"><i class="cell free"></i> free pockets</span>
  </p>
  <p class="small mb-0">
    <span v-for="p in count.bySize" :key="p.size" class="key"
      >{{ counted(p.count, 'pocket') }} of {{ p.size }}, {{ p.free }} open now</span
    >
  </p>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  margin-bottom: 0.3rem;
}
.cell {
  display: inline-block;
  width: 16px;
  height: 20px;
  border: 1.5px solid var(--mat-dark);
  border-radius: 2px;
}
.key {
  margin-right: 1rem;
}
.key .cell {
  width: 11px;
  height: 13px;
  vertical-align: -2px;
}
.picture {
  background: #8fa9b8;
}
.card {
  background: #fff;
}
.story {
  background: repeating-linear-gradient(0deg, #fff 0 3px, var(--mat) 3px 4px);
}
.keepsake {
  background: var(--zest-bright);
}
.over {
  border: 2px solid var(--warn);
  background-image: linear-gradient(135deg, transparent 45%, var(--warn) 45% 55%, transparent 55%);
}
.free {
  border-style: dashed;
  background: none;
}
</style>
