<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue'
import type { AlbumView, UnitView } from '../../api/client'
import { useHand, type InHand, type PocketRef } from './hand'
import MatSpread from './MatSpread.vue'
import ThingDrawer from './ThingDrawer.vue'
import TrayStrip from './TrayStrip.vue'
import type { Edit } from './unit'

const props = defineProps<{ unit: UnitView; album: AlbumView; edit: (change: Edit) => Promise<unknown> }>()
const emit = defineEmits<{ turn: [step: number] }>()
const hand = useHand()
const trueSize = ref(false)
const mat = ref<InstanceType<typeof MatSpread>>()

watch(
  () => props.unit.id,
  () => hand.clear(),
)
onBeforeUnmount(() => hand.clear())

function put(held: InHand, place: PocketRef) {
  void props.edit(
    held.kind === 'photo'
      ? { kind: 'putPhoto', photoId: held.photoId, place }
      : { kind: 'put', pieceId: held.pieceId, place },
  )
}

const fill = () => props.edit({ kind: 'fill' })
defineExpose({ fill, toggleSize: () => (trueSize.value = !trueSize.value) })
</script>

<template>
  <div class="place">
    <div class="bench">
      <div class="mat-bar">
        <button
          type="button"
          class="btn btn-sm btn-outline-dark"
          :disabled="!unit.previousUnitId"
          @click="emit('turn', -1)"
        >
          ‹ Turn back
        </button>
        <strong class="mat-title">{{ unit.title }} · {{ unit.label }}</strong>
        <span class="visually-quiet"
          >{{ unit.counts.pockets - unit.counts.openPockets }} of {{ unit.counts.pockets }} pockets filled</span
        >
        <button
          type="button"
          class="btn btn-sm btn-outline-dark ms-auto"
          :aria-pressed="trueSize"
          @click="trueSize = !trueSize"
        >
          {{ trueSize ? 'Fit the mat' : 'True size' }}
        </button>
        <button type="button" class="btn btn-sm btn-outline-dark" :disabled="!unit.nextUnitId" @click="emit('turn', 1)">
          Turn the leaf ›
        </button>
      </div>
      <MatSpread
        ref="mat"
        :unit="unit"
        :true-size="trueSize"
        @put="put"
        @take-out="(place) => edit({ kind: 'takeOut', place })"
        @lock="(place, locked) => edit({ kind: 'lock', place, locked })"
        @frame="(pieceId, framing) => edit({ kind: 'frame', pieceId, framing })"
      />
      <TrayStrip :unit="unit" @drop="(held, x, y) => mat?.drop(held, x, y)" />
    </div>
    <ThingDrawer :unit="unit" :album="album" :edit="edit" @fill="fill" />
    <div
      v-if="hand.ghost"
      class="ghost"
      :style="{ left: `${hand.ghost.x}px`, top: `${hand.ghost.y}px` }"
      aria-hidden="true"
    >
      <img v-if="hand.ghost.picture" :src="hand.ghost.picture" alt="" />
      <span v-else>{{ hand.ghost.label }}</span>
    </div>
  </div>
</template>

<style scoped>
.place {
  display: flex;
  flex: 1;
  min-width: 0;
  min-height: 0;
}
.bench {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-width: 0;
}
.mat-bar {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  padding: 0.3rem 0.8rem;
  background: #e9e1d1;
  border-bottom: 1px solid var(--line);
}
.mat-title {
  font-family: 'Bricolage Grotesque Variable', sans-serif;
}
@media (max-width: 800px) {
  .place {
    flex-direction: column;
    overflow-y: auto;
  }
  .bench {
    flex: none;
  }
  .bench :deep(.mat) {
    flex: none;
    height: 300px;
  }
  .mat-bar {
    flex-wrap: wrap;
  }
}
.ghost {
  position: fixed;
  z-index: 1200;
  transform: translate(-50%, -50%) rotate(-2deg);
  pointer-events: none;
  background: #fff;
  padding: 4px;
  box-shadow: 0 8px 22px rgb(0 0 0 / 0.35);
}
.ghost img {
  display: block;
  max-width: 130px;
  max-height: 110px;
}
</style>
