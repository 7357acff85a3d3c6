<script setup lang="ts">
import { computed, ref } from 'vue'
import type { PieceView, UnitView, WrittenComposition } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum } from '../../shared/edits'
import NotSaved from '../../shared/NotSaved.vue'
import { useTyped } from '../../shared/typed'
import { useAlbumWords } from '../words/queries'
import { newShape, type WrittenShape } from './compose'
import PatternSelect from './PatternSelect.vue'
import ShapeFields from './ShapeFields.vue'
import type { Edit } from './unit'

/** The ground and the shapes of a composition. */
const props = defineProps<{
  unit: UnitView
  piece: PieceView
  /** The size it is cut to, as written; null in the tray. */
  size: string | null
  edit: (change: Edit) => Promise<unknown>
}>()
const { act } = useAct(() => props.unit.albumId)
const { data: words } = useAlbumWords(() => props.unit.albumId)
const keptName = ref('')

const forget = (key: string) =>
  act(() => editAlbum(props.unit.albumId, { kind: 'forgetComposition', revision: words.value!.revision, key }))

async function keep() {
  const done = await act(() =>
    editAlbum(props.unit.albumId, {
      kind: 'keepComposition',
      revision: words.value!.revision,
      name: keptName.value,
      size: props.size!,
      composition: draft.value,
    }),
  )
  if (done) keptName.value = ''
}

type Fields = { composition: WrittenComposition }
const typed = useTyped<Fields>({
  key: () => `composition ${props.piece.id}`,
  server: () => ({ composition: props.piece.composition! }),
  revision: () => props.unit.revision,
  save: async ({ composition }, _, key) =>
    !!(await props.edit({ kind: 'changeComposition', pieceId: key.split(' ')[1]!, composition })),
})
const draft = computed(() => typed.fields.composition)

/** Words wait for the next key; whatever is chosen goes out at once, with all that was typed. */
function set(changes: Partial<WrittenComposition>, wait = false) {
  typed.type('composition', { ...draft.value, ...changes })
  if (!wait) void typed.flush()
}

const setShape = (i: number, changes: Partial<WrittenShape>) =>
  set({ shapes: draft.value.shapes.map((s, at) => (at === i ? { ...s, ...changes } : s)) }, 'words' in changes)
const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div>
    <img :src="piece.faceUrl ?? ''" class="face" alt="The composition as it prints" />
    <NotSaved :failed="typed.failed.value" @again="typed.again" @discard="typed.discard" />
    <p v-if="piece.warning" class="warning-chip mt-2">! {{ piece.warning }}</p>
    <label :for="`ground-${piece.id}`" class="form-label mb-1 mt-2">Ground</label>
    <div class="d-flex gap-2">
      <PatternSelect
        :id="`ground-${piece.id}`"
        :album-id="unit.albumId"
        none="plain colour"
        :model-value="draft.groundStyleKey"
        @update:model-value="set({ groundStyleKey: $event ?? null })"
      />
      <input
        type="color"
        class="form-control form-control-sm form-control-color"
        aria-label="Colour of the ground"
        :value="draft.ground"
        @change="set({ ground: text($event) })"
      />
    </div>
    <ShapeFields
      v-for="(shape, i) in draft.shapes"
      :key="i"
      :shape="shape"
      :number="i + 1"
      :unit="unit"
      @change="setShape(i, $event)"
      @remove="set({ shapes: draft.shapes.filter((_, at) => at !== i) })"
    />
    <div class="d-flex flex-wrap gap-2 mt-2">
      <BButton
        v-if="draft.shapes.length < 8"
        size="sm"
        variant="outline-dark"
        @click="set({ shapes: [...draft.shapes, newShape()] })"
        >Add shape</BButton
      >
      <BButton size="sm" variant="outline-dark" @click="edit({ kind: 'discardPiece', pieceId: piece.id })"
        >Delete composition</BButton
      >
    </div>
    <form v-if="size && words" class="d-flex gap-2 mt-2" @submit.prevent="keep">
      <input
        v-model="keptName"
        class="form-control form-control-sm"
        maxlength="60"
        required
        aria-label="Name to keep this composition under"
        placeholder="name of your own"
      />
      <BButton type="submit" size="sm" variant="outline-dark" class="text-nowrap">Keep for others</BButton>
    </form>
    <ul v-if="words?.ownCompositions.length" class="list-unstyled mt-2 mb-0" aria-label="Kept compositions">
      <li v-for="kept in words.ownCompositions" :key="kept.key">
        {{ kept.name }}
        <button
          type="button"
          class="btn btn-sm btn-link py-0"
          :aria-label="`Delete the kept composition ${kept.name}`"
          @click="forget(kept.key)"
        >
          Delete
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.face {
  max-width: 100%;
  max-height: 320px;
  border: 1px solid var(--line);
}
.form-control-color {
  flex: none;
  width: 2.4rem;
  padding: 0.2rem;
}
</style>
