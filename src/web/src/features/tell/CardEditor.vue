<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { answer, api, type CardSetting, type FitAnswer, type PieceView, type RemedyView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { useCatalog } from '../albums/queries'
import { isComputed, takesWords } from './kinds'

const props = defineProps<{ unitId: string; piece: PieceView }>()
const emit = defineEmits<{
  write: [pieceId: string, words: string, styleKey: string, setting: CardSetting | null]
  discard: []
}>()

const notices = useNotices()
const { data: catalog } = useCatalog()
const words = ref(props.piece.words ?? '')
const style = ref(props.piece.styleKey ?? '')
const setting = ref<CardSetting | null>(props.piece.setting ?? null)
const fit = ref<FitAnswer | null>(null)
let fitTimer: ReturnType<typeof setTimeout> | undefined
let saveTimer: ReturnType<typeof setTimeout> | undefined
let asked = 0

const written = computed(() => takesWords(props.piece.cardKind))
const families = computed(() => {
  const suiting = catalog.value?.styles.filter((s) => s.kinds.includes(props.piece.cardKind!)) ?? []
  return [...new Set(suiting.map((s) => s.family))].map((name) => ({
    name,
    styles: suiting.filter((s) => s.family === name),
  }))
})
const verdict = computed(() => fit.value?.fit ?? props.piece.fit)

// Another card, or this one after an undo: the server's words win, unless these are still being written.
watch(
  () => [props.piece.id, props.piece.words, props.piece.styleKey, props.piece.setting],
  ([id], [oldId]) => {
    if (id === oldId && saveTimer) return
    words.value = props.piece.words ?? ''
    style.value = props.piece.styleKey ?? ''
    setting.value = props.piece.setting ?? null
    fit.value = null
    if (written.value && (props.piece.fit?.wordsOver ?? 0) > 0) void measure()
  },
)

// A card that holds too many words says at once what would help.
if (written.value && (props.piece.fit?.wordsOver ?? 0) > 0) void measure()

function changed() {
  clearTimeout(fitTimer)
  if (written.value) fitTimer = setTimeout(measure, 120)
  clearTimeout(saveTimer)
  saveTimer = setTimeout(save, 900)
}

async function measure() {
  const turn = ++asked
  try {
    const result = await answer(
      api.POST('/api/fit', {
        body: {
          words: words.value,
          styleKey: style.value,
          unitId: props.unitId,
          pieceId: props.piece.id,
          setting: setting.value,
        },
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
  const was = JSON.stringify(props.piece.setting ?? null)
  if (
    words.value !== (props.piece.words ?? '') ||
    style.value !== props.piece.styleKey ||
    JSON.stringify(setting.value) !== was
  ) {
    // With the card's own id: when the editor is leaving, another card may be in hand already.
    emit('write', props.piece.id, words.value, style.value, setting.value)
  }
}

function byHand(on: boolean) {
  setting.value = { ...setting.value, byHand: on }
  void measure()
  save()
}

function asTheStyle() {
  setting.value = { byHand: setting.value?.byHand ?? false }
  void measure()
  save()
}

function take(remedy: RemedyView) {
  words.value = remedy.words
  setting.value = remedy.setting
  void measure()
  save()
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
    <div v-if="written" class="mt-2">
      <label :for="`words-${piece.id}`" class="form-label mb-1">Words</label>
      <textarea
        :id="`words-${piece.id}`"
        v-model="words"
        class="form-control"
        rows="6"
        maxlength="20000"
        :readonly="!!piece.storyId"
        @input="changed"
        @blur="save"
      ></textarea>
      <p v-if="piece.storyId" class="form-text mb-0">Flows here from its story: write there.</p>
      <p class="mt-1 mb-0" aria-live="polite" data-testid="fit">
        <span v-if="verdict && verdict.wordsOver > 0" class="warning-chip">! {{ verdict.verdict }}</span>
        <span v-else class="visually-quiet">{{ verdict?.verdict }}</span>
      </p>
      <div v-if="!piece.storyId" class="form-check">
        <input
          :id="`hand-${piece.id}`"
          type="checkbox"
          class="form-check-input"
          :checked="setting?.byHand ?? false"
          @change="byHand(($event.target as HTMLInputElement).checked)"
        />
        <label class="form-check-label" :for="`hand-${piece.id}`"
          >Written by hand: print lines, and the words on the cue sheet</label
        >
      </div>
      <template v-if="verdict && verdict.wordsOver > 0 && !setting?.byHand">
        <ul v-if="fit?.remedies.length" class="remedies" aria-label="What would help">
          <li v-for="remedy in fit.remedies" :key="remedy.kind">
            <button type="button" class="btn btn-sm btn-outline-dark" @click="take(remedy)">{{ remedy.label }}</button>
            <span class="small">{{ remedy.gain }}</span>
          </li>
        </ul>
        <p class="form-text mb-0">
          Or shorten it, let it flow on to another card, or move the card to a larger pocket.
        </p>
      </template>
      <p v-if="fit?.otherFaces" class="form-text mb-0">{{ fit.otherFaces }}</p>
      <p
        v-if="!piece.storyId && setting && Object.entries(setting).some(([key, v]) => key !== 'byHand' && v != null)"
        class="form-text mb-0"
      >
        Set differently from its style.
        <button type="button" class="btn btn-sm btn-link p-0 align-baseline" @click="asTheStyle">
          As the style says
        </button>
      </p>
    </div>
    <p v-else-if="isComputed(piece.cardKind)" class="form-text">Computed from the album, never typed.</p>
    <label :for="`style-${piece.id}`" class="form-label mb-1 mt-2">Style</label>
    <select
      :id="`style-${piece.id}`"
      v-model="style"
      class="form-select form-select-sm"
      :disabled="!!piece.storyId"
      @change="(changed(), save())"
    >
      <optgroup v-for="f in families" :key="f.name" :label="f.name">
        <option v-for="s in f.styles" :key="s.key" :value="s.key">{{ s.name }}</option>
      </optgroup>
    </select>
    <BButton size="sm" variant="outline-dark" class="mt-2" @click="emit('discard')">Throw the card away</BButton>
  </div>
</template>

<style scoped>
.remedies {
  display: grid;
  gap: 0.3rem;
  margin: 0.4rem 0;
  padding: 0;
  list-style: none;
}
.remedies li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.5rem;
  align-items: center;
}
.card-picture {
  max-width: 100%;
  max-height: 300px;
  border: 1px solid var(--line);
  box-shadow: 0 2px 6px rgb(60 40 20 / 0.15);
}
</style>
