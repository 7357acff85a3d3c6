<script setup lang="ts">
import { computed, ref } from 'vue'
import { answer, api, type FaceView, type PieceView, type PocketView, type UnitView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { counted } from '../../shared/words'
import type { Edit } from './unit'

/** A tall picture, such as a long conversation, cut into parts that go into several pockets. */
const props = defineProps<{
  unit: UnitView
  piece: PieceView
  pocket: PocketView
  edit: (change: Edit) => Promise<unknown>
}>()
const notices = useNotices()
const parts = ref<{ top: number; bottom: number }[]>([])

const pockets = computed(() =>
  props.unit.faces.flatMap((face: FaceView) =>
    face.pockets.map((pocket) => ({
      pocket,
      place: { leafId: face.leafId, side: face.side, pocketKey: pocket.key },
    })),
  ),
)
/** The other pockets of the same size; those that are empty first. */
const offered = computed(() => {
  const alike = pockets.value.filter((p) => p.pocket.code !== props.pocket.code && p.pocket.size === props.pocket.size)
  return [...alike.filter((p) => !p.pocket.piece), ...alike.filter((p) => p.pocket.piece)]
})
const chosen = ref<string[]>([])
const wanted = computed(() => parts.value.length - 1)

async function look() {
  try {
    const found = await answer(
      api.GET('/api/units/{id}/photos/{photoId}/scroll', {
        params: {
          path: { id: props.unit.id, photoId: props.piece.photo!.id },
          query: { size: props.pocket.cutLabel },
        },
      }),
    )
    parts.value = found.parts.map((p) => ({ top: p.top ?? 0, bottom: p.bottom ?? 1 }))
    chosen.value = offered.value.slice(0, found.parts.length - 1).map((p) => p.pocket.code)
  } catch (error) {
    notices.refused(error)
  }
}

async function cut() {
  const places = pockets.value.filter(
    (p) => p.pocket.code === props.pocket.code || chosen.value.includes(p.pocket.code),
  )
  await props.edit({
    kind: 'putParts',
    photoId: props.piece.photo!.id,
    parts: parts.value.map((part, i) => ({ place: places[i]!.place, top: part.top, bottom: part.bottom })),
  })
}
</script>

<template>
  <details class="mt-2">
    <summary>Cut this tall picture into parts</summary>
    <p class="form-text mt-1 mb-2">At full width, cut where no line of words runs.</p>
    <BButton v-if="parts.length === 0" size="sm" variant="outline-dark" @click="look">Find where to cut</BButton>
    <template v-else-if="wanted > 0">
      <p class="mb-1" data-testid="scroll-parts">
        {{ counted(parts.length, 'part') }}: choose {{ counted(wanted, 'more pocket') }} of {{ pocket.size }}.
      </p>
      <div class="d-flex flex-wrap gap-2">
        <label v-for="p in offered" :key="p.pocket.code" class="form-check my-1">
          <input v-model="chosen" type="checkbox" class="form-check-input" :value="p.pocket.code" />
          <span class="form-check-label">{{ p.pocket.code }}{{ p.pocket.piece ? ' (filled)' : '' }}</span>
        </label>
      </div>
      <BButton size="sm" variant="primary" :disabled="chosen.length !== wanted" @click="cut"
        >Cut into {{ counted(parts.length, 'part') }}</BButton
      >
    </template>
    <p v-else class="mb-0">One pocket of this size holds it whole.</p>
  </details>
</template>
