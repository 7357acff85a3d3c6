<script setup lang="ts">
import { computed } from 'vue'
import type { AlbumView, DesignView } from '../../api/client'
import { useCatalog, useLeaves } from '../albums/queries'
import PageThumb from '../albums/PageThumb.vue'
import StockPanel from './StockPanel.vue'

/** The binder from its first leaf to its last, both faces of each side by side. */
const props = defineProps<{ album: AlbumView }>()
const { data: leaves, error } = useLeaves(() => props.album.id)
const { data: catalog } = useCatalog()
const designs = computed(() => new Map((catalog.value?.designs ?? []).map((d) => [d.key, d])))
const designOf = (key: string): DesignView | undefined => designs.value.get(key)
const pockets = computed(() => (leaves.value ?? []).reduce((sum, l) => sum + 2 * l.pockets, 0))
</script>

<template>
  <div class="room">
    <p v-if="error" class="warning-chip" role="alert">{{ error.message }}</p>
    <p v-if="leaves" data-testid="leaves-sum">
      {{ leaves.length }} leaves, {{ pockets }} pockets front and back. The front of a leaf lies at the right of a
      spread, its back at the left of the next.
    </p>
    <ol class="binder" tabindex="0" aria-label="Leaves in their order">
      <li v-for="leaf in leaves" :key="leaf.leafId" class="leaf">
        <span class="number">{{ leaf.number }}</span>
        <div class="sides">
          <div
            v-for="[side, face] in [
              ['front', leaf.front],
              ['back', leaf.back],
            ] as const"
            :key="side"
            class="side"
          >
            <PageThumb
              v-if="designOf(leaf.designKey)"
              :design="designOf(leaf.designKey)!"
              :class="{ mirrored: side === 'back' }"
            />
            <RouterLink
              v-if="face.unitId"
              class="small"
              :to="{ name: 'desk', params: { albumId: album.id, unitId: face.unitId, tab: 'count' } }"
              :aria-label="`${face.title}, the ${side} of leaf ${leaf.number}: ${face.placed} of ${leaf.pockets} pockets filled`"
              >{{ face.title }}</RouterLink
            >
            <span v-else class="small visually-quiet">{{ face.title }}</span>
            <span class="small visually-quiet" aria-hidden="true">{{ face.placed }}/{{ leaf.pockets }}</span>
          </div>
        </div>
        <span class="small">{{ leaf.design }}</span>
      </li>
    </ol>
    <StockPanel :album="album" />
  </div>
</template>

<style scoped>
.binder {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11.5rem, 1fr));
  gap: 0.7rem;
  margin: 0 0 1.2rem;
  padding: 0;
  list-style: none;
}
.leaf {
  position: relative;
  display: flex;
  flex-direction: column;
  gap: 0.2rem;
  padding: 0.5rem 0.6rem;
  background: var(--card);
  border: 1px solid var(--line);
  border-left: 6px solid var(--mat);
  border-radius: 0.5rem;
  content-visibility: auto;
  contain-intrinsic-size: auto 9rem;
}
.number {
  font-weight: 700;
}
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.5rem;
}
.side {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 0.1rem;
}
.mirrored {
  transform: scaleX(-1);
}
</style>
