<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { answer, api, type FitAnswer, type PieceView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { useCatalog } from '../albums/queries'

const props = defineProps<{ unitId: string; piece: PieceView }>()
const emit = defineEmits<{ write: [pieceId: string, words: string, styleKey: string]; discard: [] }>()

const notices = useNotices()
const { data: catalog } = useCatalog()
const words = ref(props.piece.words ?? '')
const style = ref(props.piece.styleKey ?? '')
const fit = ref<FitAnswer | null>(null)
let fitTimer: ReturnType<typeof setTimeout> | undefined
let saveTimer: ReturnType<typeof setTimeout> | undefined
let asked = 0

const journaling = computed(() => props.piece.cardKind === 'journaling')
const styles = computed(() => catalog.value?.styles.filter((s) => s.kind === props.piece.cardKind) ?? [])
const verdict = computed(() => fit.value?.fit ?? props.piece.fit)

// Another card, or this one after an undo: the server's words win, unless these are still being written.
watch(
  () => [props.piece.id, props.piece.words, props.piece.styleKey],
  ([id], [oldId]) => {
    if (id === oldId && saveTimer) return
    words.value = props.piece.words ?? ''
    style.value = props.piece.styleKey ?? ''
    fit.value = null
  },
)

function changed() {
  clearTimeout(fitTimer)
  if (journaling.value) fitTimer = setTimeout(measure, 120)
  clearTimeout(saveTimer)
  saveTimer = setTimeout(save, 900)
}

async function measure() {
  const turn = ++asked
  try {
    const result = await answer(
      api.POST('/api/fit', {
        body: { words: words.value, styleKey: style.value, unitId: props.unitId, pieceId: props.piece.id },
      }),
    )
    if (turn === asked) fit.value = result
  } catch (error) {
    notices.refused(error)
  }
}

function save() {
  clearTimeout(saveTimer)
  saveTimer = undefined
  if (words.value !== (props.piece.words ?? '') || style.value !== props.piece.styleKey) {
    // With the card's own id: when the editor is leaving, another card may be in hand already.
    emit('write', props.piece.id, words.value, style.value)
  }
}

onBeforeUnmount(() => {
  clearTimeout(fitTimer)
  if (saveTimer) save()
})
</script>

<template>
  <div class="card-editor">
    <img
      :src="fit?.picture ?? piece.faceUrl ?? ''"
      class="card-picture"
      :alt="`The card as it prints: ${piece.title}`"
    />
    <div v-if="journaling" class="mt-2">
      <label :for="`words-${piece.id}`" class="form-label mb-1">Words</label>
      <textarea
        :id="`words-${piece.id}`"
        v-model="words"
        class="form-control"
        rows="6"
        maxlength="20000"
        @input="changed"
        @blur="save"
      ></textarea>
      <p class="mt-1 mb-0" aria-live="polite" data-testid="fit">
        <span v-if="verdict && verdict.wordsOver > 0" class="warning-chip">! {{ verdict.verdict }}</span>
        <span v-else class="visually-quiet">{{ verdict?.verdict }}</span>
      </p>
      <p v-if="verdict && verdict.wordsOver > 0" class="form-text mb-0">
        Shorten it, choose a style with smaller type, or move the card to a larger pocket.
      </p>
    </div>
    <p v-else-if="piece.cardKind === 'weekTitle'" class="form-text">Number and span are computed from the week.</p>
    <label :for="`style-${piece.id}`" class="form-label mb-1 mt-2">Style</label>
    <select :id="`style-${piece.id}`" v-model="style" class="form-select form-select-sm" @change="(changed(), save())">
      <option v-for="s in styles" :key="s.key" :value="s.key">{{ s.name }}</option>
    </select>
    <BButton size="sm" variant="outline-dark" class="mt-2" @click="emit('discard')">Throw the card away</BButton>
  </div>
</template>

<style scoped>
.card-picture {
  max-width: 100%;
  max-height: 300px;
  border: 1px solid var(--line);
  box-shadow: 0 2px 6px rgb(60 40 20 / 0.15);
}
</style>
