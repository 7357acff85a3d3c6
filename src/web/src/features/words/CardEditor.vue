<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import {
  answer,
  api,
  type CardSetting,
  type FitAnswer,
  type PieceView,
  type RemedyView,
  type UnitView,
} from '../../api/client'
import { savesFirst } from '../../shared/news'
import { useNotices } from '../../shared/notices'
import { offered } from './offered'
import { useAlbumWords } from './queries'
import CardLook from './CardLook.vue'
import { isComputed, takesWords } from './kinds'
import SmallPictures from './SmallPictures.vue'

const props = defineProps<{ unit: UnitView; piece: PieceView }>()
const emit = defineEmits<{
  write: [pieceId: string, words: string, styleKey: string, setting: CardSetting | null]
  furnish: [day: string | null, photoId: string | null]
  showSmall: [at: string, photoId: string | null]
  showDays: []
  tint: [fromPictures: boolean, photoId: string | null]
  join: [otherId: string]
  flow: []
  discard: []
}>()

const notices = useNotices()
const { data: album } = useAlbumWords(() => props.unit.albumId)
const words = ref(props.piece.words ?? '')
const style = ref(props.piece.styleKey ?? '')
const setting = ref<CardSetting | null>(props.piece.setting ?? null)
const fit = ref<FitAnswer | null>(null)
const fitting = useTimeoutFn(() => void measure(), 120, { immediate: false })
const saving = useTimeoutFn(() => save(), 900, { immediate: false })
savesFirst(() => saving.isPending.value && save())
let asked = 0

const written = computed(() => takesWords(props.piece.cardKind))
const families = computed(() => {
  const suiting = offered(album.value?.styles, props.piece.cardKind!, props.piece.styleKey)
  return [...new Set(suiting.map((s) => s.family))].map((name) => ({
    name,
    styles: suiting.filter((s) => s.family === name),
  }))
})
const verdict = computed(() => fit.value?.fit ?? props.piece.fit)

// Another card, or this one after an undo: the server's words win, unless these are still being written.
watch(
  () => [props.piece.id, props.piece.words, props.piece.styleKey, props.piece.setting, props.piece.faceUrl],
  ([id], [oldId]) => {
    if (id === oldId && saving.isPending.value) return
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
  if (written.value) fitting.start()
  saving.start()
}

async function measure() {
  const turn = ++asked
  try {
    const result = await answer(
      api.POST('/api/fit', {
        body: {
          words: words.value,
          styleKey: style.value,
          unitId: props.unit.id,
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
  saving.stop()
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

const asTheStyleSays: CardSetting = { byHand: false, ownSize: false, oneWeek: false, outline: false }

function set(changes: Partial<CardSetting>) {
  setting.value = { ...asTheStyleSays, ...setting.value, ...changes }
  if (written.value) void measure()
  save()
}

const byHand = (on: boolean) => set({ byHand: on })
const asTheStyle = () => set({ smallestPt: null, largestPt: null, leading: null, marginPt: null })

/** The days and pictures a card can be about; a picture only where its style has a place for one. */
const aboutDay = (day: string) => emit('furnish', day || null, props.piece.pictureId ?? null)
const showPicture = (photoId: string | null) => emit('furnish', props.piece.day ?? null, photoId)

async function flowOn() {
  save()
  emit('flow')
}

function take(remedy: RemedyView) {
  words.value = remedy.words
  setting.value = remedy.setting
  void measure()
  save()
}

onBeforeUnmount(() => {
  if (saving.isPending.value) save()
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
          >Write by hand: print lines only, words go on the cue sheet</label
        >
      </div>
      <template v-if="verdict && verdict.wordsOver > 0 && !setting?.byHand">
        <ul v-if="fit?.remedies.length || fit?.flowsOn" class="remedies" aria-label="What would help">
          <li v-for="remedy in fit.remedies" :key="remedy.kind">
            <button type="button" class="btn btn-sm btn-outline-dark" @click="take(remedy)">{{ remedy.label }}</button>
            <span class="small">{{ remedy.gain }}</span>
          </li>
          <li v-if="fit?.flowsOn">
            <button type="button" class="btn btn-sm btn-outline-dark" @click="flowOn">Continue on another card</button>
            <span class="small">{{ fit.flowsOn }}, as a story</span>
          </li>
        </ul>
        <p class="form-text mb-0">Or shorten it, or move the card to a larger pocket.</p>
      </template>
      <details v-if="fit?.joins.length" class="small mt-1">
        <summary>Merge with another card</summary>
        <ul class="remedies">
          <li v-for="other in fit.joins" :key="other.pieceId">
            <button type="button" class="btn btn-sm btn-outline-dark" @click="(save(), emit('join', other.pieceId))">
              {{ other.title }}
            </button>
            <span>{{ other.gain }}</span>
          </li>
        </ul>
      </details>
      <p v-if="fit?.otherFaces" class="form-text mb-0">{{ fit.otherFaces }}</p>
      <p
        v-if="
          !piece.storyId &&
          setting &&
          (['smallestPt', 'largestPt', 'leading', 'marginPt'] as const).some((key) => setting![key] != null)
        "
        class="form-text mb-0"
      >
        Set differently from its style.
        <button type="button" class="btn btn-sm btn-link p-0 align-baseline" @click="asTheStyle">
          Use the style’s settings
        </button>
      </p>
    </div>
    <p v-else-if="isComputed(piece.cardKind)" class="form-text">Computed from the album, never typed.</p>
    <template v-if="unit.days.length > 1 && piece.cardKind !== 'filler' && piece.cardKind !== 'weekTitle'">
      <label :for="`about-${piece.id}`" class="form-label mb-1 mt-2">About</label>
      <BFormSelect
        :id="`about-${piece.id}`"
        size="sm"
        :model-value="piece.day ?? ''"
        @update:model-value="aboutDay($event as string)"
      >
        <option value="">{{ piece.cardKind === 'dayTitle' ? 'its first day' : 'all of it' }}</option>
        <option v-for="d in unit.days" :key="d.day" :value="d.day">{{ d.label }}</option>
      </BFormSelect>
    </template>
    <fieldset v-if="piece.takesPicture" class="mt-2">
      <legend class="form-label mb-1">Picture on the card</legend>
      <p v-if="!unit.photos.length" class="form-text m-0">No pictures here yet.</p>
      <div v-else class="pictures">
        <button type="button" class="choice" :aria-pressed="!piece.pictureId" @click="showPicture(null)">none</button>
        <button
          v-for="photo in unit.photos"
          :key="photo.id"
          type="button"
          class="choice"
          :aria-pressed="piece.pictureId === photo.id"
          :aria-label="`Put ${photo.fileName} on the card`"
          @click="showPicture(photo.id)"
        >
          <img :src="photo.picture + '512'" alt="" loading="lazy" />
        </button>
      </div>
    </fieldset>
    <SmallPictures
      v-if="piece.smallPictures?.length"
      :unit="unit"
      :piece="piece"
      @show="(at, photoId) => emit('showSmall', at, photoId)"
      @fill="emit('showDays')"
    />
    <label :for="`style-${piece.id}`" class="form-label mb-1 mt-2">Style</label>
    <BFormSelect
      :id="`style-${piece.id}`"
      v-model="style"
      size="sm"
      :disabled="!!piece.storyId"
      @update:model-value="(changed(), save())"
    >
      <optgroup v-for="f in families" :key="f.name" :label="f.name">
        <option v-for="s in f.styles" :key="s.key" :value="s.key">{{ s.name }}</option>
      </optgroup>
    </BFormSelect>
    <CardLook
      :unit="unit"
      :piece="piece"
      :setting="setting"
      :written="written"
      @change="set"
      @tint="(fromPictures, photoId) => emit('tint', fromPictures, photoId)"
    />
    <BButton size="sm" variant="outline-dark" class="mt-2" @click="emit('discard')">Delete card</BButton>
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
.pictures {
  display: flex;
  gap: 0.25rem;
  overflow-x: auto;
  padding: 3px;
}
.choice {
  flex: none;
  min-width: 3rem;
  height: 3rem;
  padding: 2px;
  border: 2px solid var(--line);
  border-radius: 0.3rem;
  background: var(--card);
}
.choice[aria-pressed='true'] {
  border-color: var(--zest);
}
.choice img {
  height: 100%;
  border-radius: 2px;
}
.card-picture {
  display: block;
  max-width: 100%;
  max-height: 300px;
  border: 1px solid var(--line);
  box-shadow: 0 2px 6px rgb(60 40 20 / 0.15);
}
</style>
