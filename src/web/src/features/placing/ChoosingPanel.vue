<script setup lang="ts">
import { ref } from 'vue'
import type { UnitView } from '../../api/client'
import OtherWays from './OtherWays.vue'
import PlacingPriorities from './PlacingPriorities.vue'
import type { Edit } from './unit'

/** Lets the program choose: fill what is open, place anew what is not locked, see other ways, set priorities. */
const props = defineProps<{ unit: UnitView; edit: (change: Edit) => Promise<unknown> }>()
const emit = defineEmits<{ fill: [] }>()
const showing = ref(false)

async function choose(things: { key: string; place: { leafId: string; side: 'front' | 'back'; pocketKey: string } }[]) {
  if (await props.edit({ kind: 'laySpread', things })) showing.value = false
}
</script>

<template>
  <div class="d-grid gap-2">
    <BButton variant="primary" @click="emit('fill')">Fill the spread</BButton>
    <div class="d-flex gap-2">
      <BButton class="flex-fill" variant="outline-dark" @click="edit({ kind: 'placeAgain' })">Place again</BButton>
      <BButton class="flex-fill" variant="outline-dark" @click="showing = true">See other ways</BButton>
    </div>
    <PlacingPriorities :unit="unit" :edit="edit" />
    <OtherWays v-model="showing" :unit="unit" @choose="choose" />
  </div>
</template>
