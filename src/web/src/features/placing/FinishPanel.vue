<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { PieceView, UnitView, WrittenFinish } from '../../api/client'
import { offered } from '../words/offered'
import { useAlbumWords } from '../words/queries'
import { shapes, edges, plain, type Shape, type Edge } from './finish'
import PatternSelect from './PatternSelect.vue'
import type { Edit } from './unit'

/** Shape, border, mats and strip of the print or card in hand, or of all like it. */
const props = defineProps<{ unit: UnitView; piece: PieceView; edit: (change: Edit) => Promise<unknown> }>()
const { data: words } = useAlbumWords(() => props.unit.albumId)
const patterns = computed(() => offered(words.value?.styles, 'filler', draft.value.stripStyleKey))

const draft = ref<WrittenFinish>(plain())
const asItIs = () => {
  draft.value = { ...plain(), ...(JSON.parse(JSON.stringify(props.piece.finish ?? {})) as WrittenFinish) }
}
watch(() => [props.piece.id, JSON.stringify(props.piece.finish ?? null)], asItIs, { immediate: true })

const border = computed(() => draft.value.border?.[0] ?? '')
const mats = computed(() => draft.value.mats ?? [])
const rectangle = computed(() => (draft.value.shape ?? 'rectangle') === 'rectangle')

/** Pieces of the same kind that lie in pockets, this one first. */
const alike = computed(() => [
  props.piece.id,
  ...props.unit.faces
    .flatMap((f) => f.pockets)
    .flatMap((p) => (p.piece ? [p.piece] : []))
    .filter((p) => p.kind === props.piece.kind && !p.span && p.id !== props.piece.id)
    .map((p) => p.id),
])

const send = (pieceIds: string[]) =>
  props.edit({ kind: 'finishPieces', pieceIds, finish: JSON.parse(JSON.stringify(draft.value)) as WrittenFinish })

async function set(changes: Partial<WrittenFinish>) {
  draft.value = { ...draft.value, ...changes }
  // What was refused is not left standing in the fields.
  if (!(await send([props.piece.id]))) asItIs()
}

function setMat(i: number, changes: Partial<{ reveal: string; colour: string; styleKey: string | null }>) {
  void set({ mats: mats.value.map((m, at) => (at === i ? { ...m, ...changes } : m)) })
}

const text = (event: Event) => (event.target as HTMLInputElement).value
const setShape = (shape: Shape) =>
  set({
    shape,
    ...(shape === 'rectangle' ? {} : { corner: null, stripEdge: null, stripWidth: null, stripStyleKey: null }),
  })
const setStrip = (edge: Edge | '') =>
  set(
    edge
      ? {
          stripEdge: edge,
          stripWidth: draft.value.stripWidth ?? '1/2 in',
          stripStyleKey: draft.value.stripStyleKey ?? patterns.value[0]?.key ?? null,
        }
      : { stripEdge: null, stripWidth: null, stripStyleKey: null },
  )
</script>

<template>
  <details class="mt-2" :open="!!piece.finish">
    <summary>Border, mats and shape</summary>
    <div class="grid">
      <label :for="`shape-${piece.id}`">Shape</label>
      <BFormSelect
        :id="`shape-${piece.id}`"
        size="sm"
        :model-value="draft.shape ?? 'rectangle'"
        @update:model-value="setShape($event as Shape)"
      >
        <option v-for="s in shapes" :key="s.shape" :value="s.shape">{{ s.name }}</option>
      </BFormSelect>
      <label :for="`border-${piece.id}`">Border</label>
      <span class="pair">
        <input
          :id="`border-${piece.id}`"
          class="form-control form-control-sm"
          :value="border"
          placeholder="none, or 1/8 in"
          @change="set({ border: text($event).trim() ? [text($event).trim()] : null })"
        />
        <input
          type="color"
          class="form-control form-control-sm form-control-color"
          aria-label="Colour of the border"
          :value="draft.borderColour ?? '#ffffff'"
          :disabled="!border"
          @change="set({ borderColour: text($event) })"
        />
      </span>
      <template v-if="rectangle">
        <label :for="`corner-${piece.id}`">Rounded corners</label>
        <input
          :id="`corner-${piece.id}`"
          class="form-control form-control-sm"
          :value="draft.corner ?? ''"
          placeholder="square, or 1/4 in"
          @change="set({ corner: text($event).trim() || null })"
        />
      </template>
      <template v-for="(mat, i) in mats" :key="i">
        <label :for="`mat-${i}-${piece.id}`">{{ mats.length > 1 ? `Mat ${i + 1}` : 'Mat' }} shows</label>
        <span class="pair">
          <input
            :id="`mat-${i}-${piece.id}`"
            class="form-control form-control-sm"
            :value="mat.reveal"
            @change="setMat(i, { reveal: text($event) })"
          />
          <input
            type="color"
            class="form-control form-control-sm form-control-color"
            :aria-label="`Colour of mat ${i + 1}`"
            :value="mat.colour"
            @change="setMat(i, { colour: text($event) })"
          />
          <button
            type="button"
            class="btn btn-sm btn-outline-dark"
            :aria-label="`Delete mat ${i + 1}`"
            @click="set({ mats: mats.filter((_, at) => at !== i) })"
          >
            ×
          </button>
        </span>
        <label :for="`mat-pattern-${i}-${piece.id}`" class="visually-hidden">Pattern of mat {{ i + 1 }}</label>
        <PatternSelect
          :id="`mat-pattern-${i}-${piece.id}`"
          class="wide"
          :album-id="unit.albumId"
          none="plain card"
          :model-value="mat.styleKey"
          @update:model-value="setMat(i, { styleKey: $event ?? null })"
        />
      </template>
      <template v-if="rectangle">
        <label :for="`strip-${piece.id}`">Pattern strip</label>
        <BFormSelect
          :id="`strip-${piece.id}`"
          size="sm"
          :model-value="draft.stripEdge ?? ''"
          @update:model-value="setStrip($event as Edge | '')"
        >
          <option value="">none</option>
          <option v-for="e in edges" :key="e.edge" :value="e.edge">{{ e.name }}</option>
        </BFormSelect>
        <template v-if="draft.stripEdge">
          <label :for="`strip-width-${piece.id}`">Strip width</label>
          <input
            :id="`strip-width-${piece.id}`"
            class="form-control form-control-sm"
            :value="draft.stripWidth ?? ''"
            @change="set({ stripWidth: text($event) })"
          />
          <label :for="`strip-pattern-${piece.id}`">Strip pattern</label>
          <PatternSelect
            :id="`strip-pattern-${piece.id}`"
            :album-id="unit.albumId"
            :model-value="draft.stripStyleKey"
            @update:model-value="set({ stripStyleKey: $event ?? null })"
          />
        </template>
      </template>
    </div>
    <div class="d-flex flex-wrap gap-2 mt-2">
      <BButton
        v-if="mats.length < 2"
        size="sm"
        variant="outline-dark"
        @click="set({ mats: [...mats, { reveal: '1/8 in', colour: '#31403b', styleKey: null }] })"
        >Add mat</BButton
      >
      <BButton v-if="alike.length > 1" size="sm" variant="outline-dark" @click="send(alike)"
        >Use for all {{ alike.length }} {{ piece.kind === 'photo' ? 'prints' : 'cards' }}</BButton
      >
    </div>
  </details>
</template>

<style scoped>
.grid {
  display: grid;
  position: relative;
  grid-template-columns: 7.5rem minmax(0, 1fr);
  gap: 0.35rem 0.5rem;
  align-items: center;
  margin-top: 0.5rem;
}
.wide {
  grid-column: 2;
}
.pair {
  display: flex;
  gap: 0.3rem;
}
.form-control-color {
  flex: none;
  width: 2.4rem;
  padding: 0.2rem;
}
</style>
