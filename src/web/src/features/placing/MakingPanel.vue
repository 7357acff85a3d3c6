<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { PieceView, UnitView } from '../../api/client'
import { hinges } from './attached'
import { stockName, stocks, type Stock } from '../../shared/stocks'
import { stepKinds, type Edge, type StepKind } from './finish'
import type { Edit } from './unit'

type WrittenStep = NonNullable<PieceView['steps']>[number]

/** How a piece is made: what it is printed on, its line on the legend, and what is done to it by hand. */
const props = defineProps<{ unit: UnitView; piece: PieceView; edit: (change: Edit) => Promise<unknown> }>()

/** What is left for printing by its style or its album is not its own. */
const own = computed(() => props.piece.ownStock ?? '')
const line = ref('')
watch(
  () => [props.piece.id, props.piece.legendLine],
  () => (line.value = props.piece.legendLine ?? ''),
  { immediate: true },
)
const steps = computed(() => props.piece.steps ?? [])
const kind = ref<StepKind>('stamp')
const words = ref('')
const roomAt = ref<Edge | ''>('')
const room = ref('1/2 in')

const printOn = (stock: Stock | '') =>
  props.edit({ kind: 'printPiecesOn', pieceIds: [props.piece.id], stock: stock || null })
const name = () => props.edit({ kind: 'nameInLegend', pieceId: props.piece.id, line: line.value })
const plan = (planned: WrittenStep[]) => props.edit({ kind: 'planSteps', pieceId: props.piece.id, steps: planned })

async function add() {
  if (
    await plan([
      ...steps.value,
      {
        kind: kind.value,
        words: words.value,
        roomAt: roomAt.value || null,
        room: roomAt.value ? room.value : null,
      },
    ])
  )
    words.value = ''
}
</script>

<template>
  <details class="mt-2" :open="!!own || steps.length > 0 || !!piece.legendLine">
    <summary>Paper, legend, steps by hand</summary>
    <label :for="`stock-${piece.id}`" class="form-label mb-1 mt-2">Printed on</label>
    <BFormSelect
      :id="`stock-${piece.id}`"
      size="sm"
      :model-value="own"
      @update:model-value="printOn($event as Stock | '')"
    >
      <option value="">{{ own ? 'as the album' : `as the album: ${stockName(piece.stock ?? 'whiteCard')}` }}</option>
      <option v-for="s in stocks" :key="s.stock" :value="s.stock">{{ s.name }}</option>
    </BFormSelect>
    <template v-if="piece.kind === 'photo'">
      <label :for="`legend-${piece.id}`" class="form-label mb-1 mt-2">Line on the legend</label>
      <input
        :id="`legend-${piece.id}`"
        v-model="line"
        class="form-control form-control-sm"
        maxlength="120"
        placeholder="gives the picture a number"
        @change="name"
      />
    </template>
    <p class="form-label mb-1 mt-2">Steps by hand</p>
    <ol v-if="steps.length" class="ps-3 mb-2">
      <li v-for="(step, i) in steps" :key="i">
        {{ stepKinds[step.kind] }}<template v-if="step.words">: {{ step.words }}</template
        ><template v-if="step.roomAt">, {{ step.room }} free at the {{ step.roomAt }}</template>
        <button
          type="button"
          class="btn btn-sm btn-link py-0"
          :aria-label="`Delete step ${i + 1}`"
          @click="plan(steps.filter((_, at) => at !== i))"
        >
          Delete
        </button>
      </li>
    </ol>
    <form class="d-flex flex-wrap gap-1" @submit.prevent="add">
      <BFormSelect v-model="kind" size="sm" aria-label="What to do by hand">
        <option v-for="(label, key) in stepKinds" :key="key" :value="key">{{ label }}</option>
      </BFormSelect>
      <input
        v-model="words"
        class="form-control form-control-sm"
        maxlength="120"
        aria-label="What exactly"
        placeholder="what exactly"
      />
      <BFormSelect v-model="roomAt" size="sm" aria-label="Room kept for it">
        <option value="">no room kept</option>
        <option v-for="h in hinges" :key="h.edge" :value="h.edge">room at the {{ h.name }}</option>
      </BFormSelect>
      <input
        v-if="roomAt"
        v-model="room"
        class="form-control form-control-sm"
        aria-label="How deep the room is"
        maxlength="20"
      />
      <BButton type="submit" size="sm" variant="outline-dark">Add step</BButton>
    </form>
  </details>
</template>
